import {
	error,
	redirect,
	type Handle,
	type HandleServerError,
	type ServerInit
} from '@sveltejs/kit';
import { startKeeper } from '$lib/server/board-keeper';
import { config } from '$lib/server/config';
import { asFault, STATUS } from '$lib/server/errors';
import { log } from '$lib/server/log';
import { database, getRuntime, visitOf } from '$lib/server/runtime';

/** Answer without a session: probes, sign-in, the calculation interface, which takes a key. */
const OPEN = [/^\/healthz$/, /^\/readyz$/, /^\/sign-in$/, /^\/api\/v1\//];
const PROBES = [/^\/healthz$/, /^\/readyz$/];

const SECURITY_HEADERS = {
	'x-content-type-options': 'nosniff',
	'x-frame-options': 'DENY',
	'referrer-policy': 'same-origin',
	'permissions-policy': 'camera=(self), microphone=(), geolocation=()',
	'cross-origin-opener-policy': 'same-origin'
};

/** The entry board is kept from the start of the process, before anyone looks. */
export const init: ServerInit = () => startKeeper(database(), config().GREVAN_TELEMETRY);

export const handle: Handle = async ({ event, resolve }) => {
	const started = performance.now();
	const { pathname } = event.url;
	const runtime = getRuntime(event.url.origin);
	const { db, auth, origin } = runtime;
	event.locals.db = db;
	event.locals.auth = auth;
	event.locals.origin = origin;
	event.locals.actor = null;
	event.locals.theme = event.cookies.get('theme') === 'night' ? 'night' : 'day';
	refuseForeignOrigin(event.request, event.url.origin, origin);

	if (!PROBES.some((probe) => probe.test(pathname))) {
		try {
			const { actor, site } = await visitOf(runtime, event.request.headers);
			event.locals.actor = actor;
			event.locals.site = site;
		} catch (cause) {
			const fault = asFault(lostSession(cause));
			if (!fault) throw cause;
			error(STATUS[fault.kind], { message: fault.message });
		}
		if (!event.locals.actor && !OPEN.some((open) => open.test(pathname))) {
			if (event.request.method !== 'GET' || pathname.startsWith('/api/'))
				error(401, { message: 'You are signed out. Sign in again; nothing was changed.' });
			redirect(303, `/sign-in?next=${encodeURIComponent(pathname + event.url.search)}`);
		}
	}
	const response = await resolve(event, {
		transformPageChunk: ({ html }) => html.replace('%grevan.theme%', event.locals.theme)
	});
	for (const [name, value] of Object.entries(SECURITY_HEADERS)) response.headers.set(name, value);
	if (event.locals.actor) response.headers.set('cache-control', 'private, no-store');
	log.info({
		method: event.request.method,
		route: event.route.id,
		status: response.status,
		ms: Math.round(performance.now() - started)
	});
	return response;
};

/** Every changing request must come from our own pages, whatever its content type. */
function refuseForeignOrigin(request: Request, own: string, configured: string): void {
	if (['GET', 'HEAD', 'OPTIONS'].includes(request.method)) return;
	const from = request.headers.get('origin');
	// Programs send no origin; a browser always does. Without one no session cookie counts.
	if (from === null && !request.headers.has('cookie')) return;
	if (from !== own && from !== configured)
		error(403, { message: 'This request came from another site. It was refused.' });
}

/** The account library wraps what the database threw. */
function lostSession(cause: unknown): unknown {
	const status = (cause as { status?: unknown } | null)?.status;
	return status === 'INTERNAL_SERVER_ERROR' && cause instanceof Error && !cause.cause
		? Object.assign(new Error('session'), { code: 'ECONNRESET' })
		: cause;
}

export const handleError: HandleServerError = ({ error: cause, event, status }) => {
	const fault = asFault(cause);
	if (fault) return { message: fault.message };
	if (status === 404) return { message: 'There is no such page.' };
	const kind = cause instanceof Error ? cause.name : 'unknown';
	log.error({
		route: event.route.id,
		kind,
		stack: cause instanceof Error ? cause.stack : undefined
	});
	return {
		message:
			'Something went wrong on our side. What you entered was not changed; it has been logged.'
	};
};
