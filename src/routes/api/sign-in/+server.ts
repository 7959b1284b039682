import { z } from 'zod';
import { handOver } from '$lib/server/access/pins';
import { giveCode, signInAgain } from '$lib/server/access/sign-in';
import {
	doorContext,
	entranceOf,
	keepDeviceCookie,
	passCookies,
	challengeOf
} from '$lib/server/web/entrance';
import { api, jsonBody, parse } from '$lib/server/web/request';
import { forgetVisit } from '$lib/server/web/visits';

const body = z.object({
	person: z.string().min(1).max(60),
	by: z.enum(['pin', 'password', 'code']),
	secret: z.string().min(1, 'Type it.').max(200)
});

/** Signs the person of a page in again where they stand, after their session ended. */
export const POST = (event) =>
	api(async () => {
		const { person, by, secret } = parse(body, await jsonBody(event.request));
		const [context, at] = [doorContext(event), entranceOf(event)];
		const { origin } = event.locals;
		forgetVisit(event.request.headers);
		if (by === 'pin') {
			const who = { account: person };
			const { cookies } = await handOver(context, at, { who, pin: secret, from: null });
			passCookies(event.cookies, origin, cookies);
			return { in: true };
		}
		const entered =
			by === 'code'
				? await giveCode(context, at, { code: secret, ...challengeOf(event) })
				: await signInAgain(context, at, { person, password: secret });
		passCookies(event.cookies, origin, entered.cookies);
		if ('code' in entered) return { code: true };
		keepDeviceCookie(event.cookies, origin, entered.deviceKey);
		return { in: true };
	});
