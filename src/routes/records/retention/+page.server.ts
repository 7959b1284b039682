import { z } from 'zod';
import { MOST_MONTHS, RETENTION_KINDS } from '$core/records/retention';
import { may } from '$lib/server/kernel/permissions';
import { dropRetained, retentionPage, setRetention } from '$lib/server/records/retention';
import { contextOf, formAction, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		return {
			kinds: await retentionPage(context),
			mayKeep: may(context.actor.role, 'keep accounts'),
			most: MOST_MONTHS
		};
	});

const about = {
	...requested,
	kind: z.enum(RETENTION_KINDS),
	version: z.coerce.number().int().min(0)
};

export const actions: Actions = {
	set: formAction(
		z.object({
			...about,
			keepMonths: z
				.literal('')
				.transform(() => null)
				.or(z.coerce.number('Months as a figure.').int('Whole months.').min(1).max(MOST_MONTHS))
		}),
		async (event: RequestEvent, input) => {
			await setRetention(contextOf(event), input);
			return { kept: input.kind };
		}
	),
	drop: formAction(z.object(about), async (event: RequestEvent, input) => ({
		kind: input.kind,
		...(await dropRetained(contextOf(event), input))
	}))
};
