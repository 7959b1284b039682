import { type Cookies, fail, type RequestEvent } from '@sveltejs/kit';
import { parse as parseCookie } from 'node:querystring';
import { DEVICE_COOKIE, DEVICE_COOKIE_S } from '../access/devices.ts';
import type { Entrance } from '../access/sign-in.ts';
import type { Unattended } from '../kernel/context.ts';
import { asRefusal, STATUS } from '../kernel/refusal.ts';
import { formBody } from './request.ts';

/** Where the one who asks comes from. */
export const entranceOf = (event: RequestEvent): Entrance => ({
	auth: event.locals.auth,
	origin: event.locals.origin,
	client: event.getClientAddress(),
	deviceKey: event.cookies.get(DEVICE_COOKIE),
	agent: event.request.headers.get('user-agent')
});

/** What the way in works with, before anyone is in. */
export const doorContext = ({ locals }: Pick<RequestEvent, 'locals'>): Unattended => ({
	db: locals.db,
	site: locals.site,
	now: () => new Date()
});

const secure = (origin: string) => origin.startsWith('https:');

/** Passes on the cookies that the account service set. */
export function passCookies(cookies: Cookies, origin: string, given: readonly string[]): void {
	for (const cookie of given) {
		const [pair = '', ...attributes] = cookie.split('; ');
		const at = pair.indexOf('=');
		const set = parseCookie(attributes.join('&'));
		cookies.set(pair.slice(0, at), decodeURIComponent(pair.slice(at + 1)), {
			path: '/',
			httpOnly: true,
			sameSite: 'lax',
			secure: secure(origin),
			maxAge: Number(set['Max-Age'] ?? 0)
		});
	}
}

/** What a browser was given with the question for a code of the authenticator. */
export const challengeOf = ({ cookies, request }: Pick<RequestEvent, 'cookies' | 'request'>) => ({
	cookie: request.headers.get('cookie'),
	challenge: cookies.getAll().find(({ name }) => name.endsWith('two_factor'))?.value
});

/** What the browser keeps to be known as this device; it says nothing of a person. */
export const keepDeviceCookie = (cookies: Cookies, origin: string, key: string): void =>
	cookies.set(DEVICE_COOKIE, key, {
		path: '/',
		httpOnly: true,
		sameSite: 'lax',
		secure: secure(origin),
		maxAge: DEVICE_COOKIE_S
	});

/** Takes the cookies of a session from the browser; the device stays known. */
export function dropSessionCookies(cookies: Cookies): void {
	for (const { name } of cookies.getAll())
		if (name.includes('grevan.')) cookies.delete(name, { path: '/' });
}

/** Where to go from the door: only to a path of our own. */
export function nextOf(url: URL): string {
	const next = url.searchParams.get('next') ?? '/';
	return /^\/(?![/\\])/.test(next) ? next : '/';
}

/** A form at the door: what is refused goes back to it with what was typed that is no secret. */
export async function doorAction<T>(
	event: RequestEvent,
	work: (fields: Record<string, unknown>) => Promise<T>
) {
	let email = '';
	try {
		const fields = await formBody(event.request);
		if (typeof fields.email === 'string') email = fields.email;
		return await work(fields);
	} catch (cause) {
		const refusal = asRefusal(cause);
		if (!refusal) throw cause;
		const { message, path } = refusal;
		return fail(STATUS[refusal.kind], { message, path: path ?? null, email });
	}
}
