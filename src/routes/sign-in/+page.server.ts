import { redirect, type RequestEvent } from '@sveltejs/kit';
import { z } from 'zod';
import { deviceOf, takesPins } from '$lib/server/access/devices';
import { type CodeAsked, type Entered, giveCode, signIn } from '$lib/server/access/sign-in';
import { PEOPLE } from '$lib/server/demo/scenario';
import { DEMO_PIN } from '$lib/server/demo/seed';
import { Refusal } from '$lib/server/kernel/refusal';
import { config } from '$lib/server/web/config';
import {
	challengeOf,
	doorAction,
	doorContext,
	entranceOf,
	keepDeviceCookie,
	nextOf,
	passCookies
} from '$lib/server/web/entrance';
import { isLoopback } from '$lib/server/web/loopback';
import { parse } from '$lib/server/web/request';
import type { Actions, PageServerLoad } from './$types';

const shared = { shared: z.string().max(10).optional() };
const credentials = z.object({
	email: z.string().trim().min(1, 'Type your address.').max(200),
	password: z.string().min(1, 'Type your password.').max(200),
	...shared
});
const code = z.object({ code: z.string().trim().min(1, 'Type the code.').max(40), ...shared });
const demo = z.object({ email: z.string().max(200), ...shared });

/** The password of the demo people, where the app is reached on this very machine and nowhere else. */
const demoPassword = (event: Pick<RequestEvent, 'url' | 'getClientAddress'>) =>
	isLoopback(event.url.hostname) && isLoopback(event.getClientAddress())
		? config().GREVAN_DEMO_PASSWORD
		: undefined;

export const load: PageServerLoad = async (event) => {
	const { locals, url } = event;
	if (locals.actor) redirect(303, nextOf(url));
	const { deviceKey } = entranceOf(event);
	const device = await deviceOf(locals.db, deviceKey);
	const offered = demoPassword(event) !== undefined;
	return {
		shared: device?.shared ?? false,
		takesPins: takesPins(device, new Date()),
		demo: offered ? PEOPLE.map(({ name, email, role }) => ({ name, email, role })) : [],
		demoPin: offered ? DEMO_PIN : null
	};
};

/** Sets what came of a step at the door, and goes on. */
function goOn(event: RequestEvent, entered: Entered | CodeAsked) {
	passCookies(event.cookies, event.locals.origin, entered.cookies);
	if ('code' in entered) return { code: true };
	keepDeviceCookie(event.cookies, event.locals.origin, entered.deviceKey);
	redirect(303, nextOf(event.url));
}

/** The box is not ticked where a device is not shared; a form without it leaves the device as it is. */
const asShared = (given: string | undefined) => (given === undefined ? undefined : given === 'yes');

export const actions: Actions = {
	enter: (event) =>
		doorAction(event, async (fields) => {
			const given = parse(credentials, fields);
			return goOn(
				event,
				await signIn(doorContext(event), entranceOf(event), {
					email: given.email,
					password: given.password,
					shared: asShared(given.shared)
				})
			);
		}),
	code: (event) =>
		doorAction(event, async (fields) => {
			const given = parse(code, fields);
			return goOn(
				event,
				await giveCode(doorContext(event), entranceOf(event), {
					code: given.code,
					...challengeOf(event),
					shared: asShared(given.shared)
				})
			);
		}),
	demo: (event) =>
		doorAction(event, async (fields) => {
			const given = parse(demo, fields);
			const password = demoPassword(event);
			const person = PEOPLE.find((p) => p.email === given.email);
			if (!password || !person) throw new Refusal('forbidden', 'There is no demo here.');
			return goOn(
				event,
				await signIn(doorContext(event), entranceOf(event), {
					email: person.email,
					password,
					shared: asShared(given.shared)
				})
			);
		})
};
