import type { RequestEvent } from '@sveltejs/kit';
import pg from 'pg';
import { sessionOver } from '../../../core/access/session.ts';
import { endSession } from '../access/sessions.ts';
import { owesTwoStep } from '../access/two-step.ts';
import type { Database } from '../db/client.ts';
import { noteSeen } from '../db/queries/access.ts';
import type { Actor } from '../kernel/context.ts';
import { loadSite, type Site } from '../kernel/site.ts';
import { type Auth, type SessionSeen, sessionOf } from './auth.ts';
import type { Listener } from './event-stream.ts';
import { log, logged } from './log.ts';

/** Who comes, in which session, and what the site has chosen. */
export interface Visit {
	actor: Actor | null;
	session: SessionSeen | null;
	site: Site;
	/** The site asks this role for a second step, and the account has none yet. */
	lacksTwoStep: boolean;
}

/** How long an answer about a session or the site's choices may be used again. */
const MEMO_MS = 5000;
const MEMO_MOST = 2000;
/** A session in use is noted so often. */
const SEEN_EVERY_MS = 20_000;
/** By cookie: until when it holds, for ever while it is being read; and of whom it is, once that is known. */
const visits = new Map<string, { until: number; of: string | null; visit: Promise<Visit> }>();

/**
 * Who comes. Asked of the database once in five seconds per session and process, as reading a session costs more than
 * most pages; what ends a session is heard from the database at once.
 */
export async function visitOf(
	{ auth, db }: { auth: Auth; db: Database },
	headers: Headers
): Promise<Visit> {
	const cookie = headers.get('cookie') ?? '';
	const at = Date.now();
	const kept = visits.get(cookie);
	if (kept && kept.until > at) return kept.visit;
	const visit = look({ auth, db }, headers);
	if (!cookie) return visit;
	if (visits.size >= MEMO_MOST) visits.clear();
	// All who come at once in one session share one look.
	const mine = { until: Infinity, of: null as string | null, visit };
	visits.set(cookie, mine);
	const { actor } = await visit.catch(() => ({ actor: null }));
	mine.until = at + MEMO_MS;
	mine.of = actor?.id ?? null;
	if (!actor && visits.get(cookie) === mine) visits.delete(cookie);
	return visit;
}

async function look({ auth, db }: { auth: Auth; db: Database }, headers: Headers): Promise<Visit> {
	const [found, site] = await Promise.all([sessionOf(auth, headers), loadSite(db)]);
	return standing(db, found, site);
}

async function standing(
	db: Database,
	found: Awaited<ReturnType<typeof sessionOf>>,
	site: Site
): Promise<Visit> {
	const nobody = { actor: null, session: null, site, lacksTwoStep: false };
	if (!found) return nobody;
	const { actor, session, twoStep } = found;
	const now = new Date();
	const over = sessionOver(session, site, now);
	if (over) {
		await endSession({ db, site, now: () => now }, actor, session.id, over);
		return nobody;
	}
	return {
		actor,
		session,
		site,
		// The first admin sets the site up first, with the one-time code behind them.
		lacksTwoStep: site.setUpAt !== null && owesTwoStep(site, { role: actor.role, twoStep })
	};
}

/** What a page asks for by itself while nobody may be there. */
const BY_ITSELF = /\/events$|^\/api\/here$/;

/** Whether a person asks for something, or a page by itself. */
export const isAsked = (pathname: string): boolean => !BY_ITSELF.test(pathname);

/** Notes that the person of a session is at work. */
export async function noteUse(
	db: Database,
	{ session }: { session: SessionSeen | null }
): Promise<void> {
	if (!session) return;
	const now = new Date();
	if (now.getTime() - session.seenAt.getTime() < SEEN_EVERY_MS) return;
	session.seenAt = now;
	await noteSeen(db, session.id, now);
}

/** Forgets what was kept of the session of a request, as when its person signs out or shows again who they are. */
export const forgetVisit = (headers: Headers) => visits.delete(headers.get('cookie') ?? '');

/** Forgets what was kept of a person, or of everyone. */
function forgetPerson(id: string): void {
	// Of one that is being read it is not known yet whose it is.
	for (const [cookie, { of }] of visits) if (!id || !of || of === id) visits.delete(cookie);
}

const CHANNEL = 'grevan_access';
const AGAIN_MS = 5000;

/** Hears from the database when a session or an account changes; a lost connection is made anew. */
export function listenForEnds(url: string): void {
	const again = () => void setTimeout(() => listenForEnds(url), AGAIN_MS).unref();
	const client = new pg.Client({ connectionString: url, application_name: 'grevan access' });
	client.on('notification', ({ payload }) => forgetPerson(payload ?? ''));
	client.on('error', () => {});
	client.on('end', () => {
		// What happened meanwhile was not heard.
		visits.clear();
		again();
	});
	client
		.connect()
		.then(() => client.query(`listen ${CHANNEL}`))
		.catch((error: unknown) => {
			log.warn({ what: 'access', ...logged(error) });
			client.end().catch(() => again());
		});
}

/** Who listens to a stream: the person whose session it was opened in, for as long as that stands in the same role. */
export function listenerOf({
	locals,
	request
}: Pick<RequestEvent, 'locals' | 'request'>): Listener {
	const { actor } = locals;
	return {
		id: actor?.id ?? '',
		async stillIn() {
			const { actor: now } = await visitOf(locals, request.headers);
			return now?.id === actor?.id && now?.role === actor?.role;
		}
	};
}
