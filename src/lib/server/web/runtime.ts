import { type Database, openDatabase } from '../db/client.ts';
import type { Actor } from '../kernel/context.ts';
import { loadSite, type Site } from '../kernel/site.ts';
import { actorOf, type Auth, createAuth } from './auth.ts';
import { config } from './config.ts';

interface Runtime {
	db: Database;
	auth: Auth;
	origin: string;
}

let runtime: Runtime | undefined;

/** How long an answer about a session or the site's choices may be used again. */
const MEMO_MS = 5000;
const MEMO_MOST = 2000;
type Visit = { actor: Actor | null; site: Site };
const visits = new Map<string, { until: number; visit: Visit }>();

/**
 * Who comes and what the site has chosen. Asked of the database once in five seconds per session and process:
 * reading a session costs more than most pages.
 */
export async function visitOf({ auth, db }: Runtime, headers: Headers): Promise<Visit> {
	const cookie = headers.get('cookie') ?? '';
	const now = Date.now();
	const kept = visits.get(cookie);
	if (kept && kept.until > now) return kept.visit;
	const [actor, site] = await Promise.all([actorOf(auth, headers), loadSite(db)]);
	if (visits.size >= MEMO_MOST) visits.clear();
	const visit = { actor, site };
	if (actor) visits.set(cookie, { until: now + MEMO_MS, visit });
	return visit;
}

/** Forgets a session at once, as when its person signs out. */
export const forgetVisit = (headers: Headers) => visits.delete(headers.get('cookie') ?? '');

let opened: Database | undefined;

/** The one database pool of the process, opened at its first use. */
export const database = (): Database => (opened ??= openDatabase(config().DATABASE_URL).db);

/** The database and the account service of the process, made at the first request. */
export function getRuntime(origin: string): Runtime {
	if (runtime) return runtime;
	const { GREVAN_SECRET, ORIGIN } = config();
	const db = database();
	const address = ORIGIN ?? origin;
	runtime = {
		db,
		auth: createAuth(db, { secret: GREVAN_SECRET, origin: address }),
		origin: address
	};
	return runtime;
}
