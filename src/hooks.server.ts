import {
	error,
	isHttpError,
	isRedirect,
	type Handle,
	type HandleServerError,
	redirect,
	type ServerInit
} from '@sveltejs/kit';
import { SECURITY_HEADERS } from '../scripts/lib/headers.mjs';
import { warmHeavy } from '$lib/server/jobs/heavy';
import { startJobs } from '$lib/server/jobs/room';
import { openPost, postFrom } from '$lib/server/notices/mail';
import { PERSON_HEADER } from '$lib/person-header';
import { asRefusal, STATUS } from '$lib/server/kernel/refusal';
import { config } from '$lib/server/web/config';
import { isShared, keptPage } from '$lib/server/web/kept-page';
import { log, logged } from '$lib/server/web/log';
import { noteSession, refused } from '$lib/server/web/request';
import { hasAdmin } from '$lib/server/site/set-up';
import { keyActor } from '$lib/server/access/keys';
import { database, getRuntime } from '$lib/server/web/runtime';
import { isAsked, noteUse, visitOf } from '$lib/server/web/visits';

/** Answer without a session: probes, sign-in, the calculation interface, which takes a key. */
const OPEN = [
	/^\/healthz$/,
	/^\/readyz$/,
	/^\/sign-in$/,
	/^\/set-up$/,
	/^\/hand-over$/,
	/^\/screen(?:\/now)?$/,
	/^\/api\/sign-in$/,
	/^\/invite\/[\w-]+$/,
	/^\/calendar\/[\w-]+\.ics$/,
	/^\/api\/v1\//
];
/** What somebody reaches who has to set up their second step first. */
const BEFORE_TWO_STEP = [
	/^\/settings$/,
	/^\/sign-out$/,
	/^\/theme$/,
	/^\/api\/proof$/,
	/^\/hand-over$/
];
const PROBES = [/^\/healthz$/, /^\/readyz$/];

/**
 * What runs without a visitor does so in a process of its own, or from the start of this one where there is none, as
 * in development.
 */
export const init: ServerInit = async () => {
	warmHeavy();
	openPost(postFrom(config()));
	if (config().GREVAN_KEEPER !== 'apart') await startJobs(database());
};

export const handle: Handle = async ({ event, resolve }) => {
	const started = performance.now();
	const { pathname } = event.url;
	const runtime = getRuntime(event.url.origin);
	const { db, auth, origin } = runtime;
	event.locals.db = db;
	event.locals.auth = auth;
	event.locals.origin = origin;
	event.locals.actor = null;
	event.locals.session = null;
	event.locals.theme = event.cookies.get('theme') === 'night' ? 'night' : 'day';
	if (/%00/i.test(event.request.url)) error(400, { message: 'There is no such page.' });
	refuseForeignOrigin(event.request, event.url.origin, origin);

	if (!PROBES.some((probe) => probe.test(pathname))) {
		try {
			const visit = await visitOf(runtime, event.request.headers);
			event.locals.actor =
				visit.actor ?? (await keyActor({ db, now: () => new Date() }, event.request, pathname));
			event.locals.session = visit.session;
			event.locals.site = visit.site;
			if (visit.lacksTwoStep && !BEFORE_TWO_STEP.some((open) => open.test(pathname)))
				needsTwoStep(event.request.method);
			if (isAsked(pathname)) await noteUse(db, visit);
		} catch (cause) {
			if (isRedirect(cause) || isHttpError(cause)) throw cause;
			const refusal = asRefusal(lostSession(cause));
			if (!refusal) throw cause;
			error(STATUS[refusal.kind], { message: refusal.message });
		}
		if (!event.locals.actor && !OPEN.some((open) => open.test(pathname))) {
			if (event.request.method !== 'GET' || pathname.startsWith('/api/'))
				error(401, { message: 'You are signed out. Sign in again; nothing was changed.' });
			// Before anybody keeps the accounts, there is only the set-up.
			if (!event.locals.site.setUpAt && !(await hasAdmin(db))) redirect(303, '/set-up');
			redirect(303, `/sign-in?next=${encodeURIComponent(pathname + event.url.search)}`);
		}
	}
	const { actor } = event.locals;
	const other = actor && noteSession(event.request, actor.id);
	const made: typeof resolve = (of) =>
		resolve(of, {
			transformPageChunk: ({ html }) => html.replace('%grevan.theme%', of.locals.theme)
		});
	const kept = actor && !other && isShared(event) ? await keptPage(event, actor, made) : null;
	const response = other ? refused(other) : (kept ?? (await made(event)));
	// The server around the built app sets them too, on what never comes here.
	for (const [name, value] of Object.entries(SECURITY_HEADERS)) response.headers.set(name, value);
	if (actor) {
		response.headers.set('cache-control', 'private, no-store');
		response.headers.set(PERSON_HEADER, actor.id);
	}
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

/** Whose role asks for two steps sets up the second before anything else. */
function needsTwoStep(method: string): never {
	if (method !== 'GET')
		error(403, { message: 'Set up two-step sign-in first, under Settings. Nothing was changed.' });
	redirect(303, '/settings');
}

/** The account library wraps what the database threw. */
function lostSession(cause: unknown): unknown {
	const status = (cause as { status?: unknown } | null)?.status;
	return status === 'INTERNAL_SERVER_ERROR' && cause instanceof Error && !cause.cause
		? Object.assign(new Error('session'), { code: 'ECONNRESET' })
		: cause;
}

export const handleError: HandleServerError = ({ error: cause, event, status }) => {
	const refusal = asRefusal(cause);
	if (refusal) return { message: refusal.message };
	if (status === 404) return { message: 'There is no such page.' };
	log.error({ route: event.route.id, by: event.locals.actor?.id ?? null, ...logged(cause) });
	return {
		message:
			'Something went wrong on our side; it has been logged. Look whether what you sent was done before you send it anew.'
	};
};
