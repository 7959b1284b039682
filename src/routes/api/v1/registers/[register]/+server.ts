import { z } from 'zod';
import { REGISTER_PAGE } from '$core/records/registers';
import { registerNamed, registerPage } from '$lib/server/records/registers';
import { periodOf } from '$lib/server/web/record-search';
import { api, contextOf, parse } from '$lib/server/web/request';

const paging = z.object({
	after: z.string().max(200).nullable().default(null),
	limit: z.coerce
		.number('limit is a number.')
		.int()
		.min(1)
		.max(REGISTER_PAGE.most, `At most ${REGISTER_PAGE.most} rows at once.`)
		.default(REGISTER_PAGE.usual)
});

/** A page of a register, for a program: signed in, or with a key that may read. */
export const GET = (event) =>
	api(async () => {
		const context = contextOf(event);
		const { searchParams } = event.url;
		const { from, to } = periodOf(searchParams);
		const { after, limit } = parse(paging, Object.fromEntries(searchParams));
		const key = registerNamed(event.params.register);
		return { register: key, ...(await registerPage(context, key, { from, to, after, limit })) };
	});
