import { AsyncLocalStorage } from 'node:async_hooks';
import { randomBytes, randomInt, randomUUID } from 'node:crypto';
import type { RequestEvent, ResolveOptions } from '@sveltejs/kit';
import { freshIdsFrom } from '../../fresh-id.ts';
import type { Actor } from '../kernel/context.ts';
import { steadyNow } from '../kernel/steady.ts';
import { untilRecorded } from '../kernel/until-recorded.ts';
import { asIs, asWords, type Blanked, fillIn, type Filling, takeApart } from './blanks.ts';

/**
 * Pages that all of a role see alike: each is made once until something is recorded, for nobody in particular, and only
 * what is each person's own is put in for each answer. What such a page asks of the database in the name of its person
 * finds nobody, so that nothing of one can come to another.
 */
const SHARED: ReadonlySet<string | null> = new Set([
	'/',
	'/counter',
	'/faults',
	'/filters',
	'/filters/opened',
	'/hazards',
	'/items',
	'/items/[tag]',
	'/items/[tag]/history',
	'/people',
	'/wash'
]);

/** Longer than any clock: no figure of a page is one of these. */
const moment = () => randomInt(2 ** 47, 2 ** 48 - 1) + 4e15;
/** Stand for the server's time on a page that is kept: of its clock, and of what runs on steadily. */
export const [ANY_MOMENT, ANY_STEADY_MOMENT] = [moment(), moment()];

const mark = () => `g${randomBytes(12).toString('hex')}`;
const MARKS = { id: mark(), name: mark(), initials: mark() };
const anyone = (role: Actor['role']): Actor => ({ ...MARKS, role });

/** Whether somebody is nobody in particular. */
export const isAnyone = (actor: Actor | null): boolean => actor?.id === MARKS.id;

/** The ids that came to stand on the page that is being made. */
const making = new AsyncLocalStorage<string[]>();
freshIdsFrom(() => {
	const id = randomUUID();
	making.getStore()?.push(id);
	return id;
});

interface Kept extends Blanked {
	headers: Headers;
	nonce: string | null;
	/** Something on it runs on with the time. */
	runs: boolean;
	madeMs: number;
}

type Resolve = (event: RequestEvent, options?: ResolveOptions) => Response | Promise<Response>;

/**
 * Whether a page is asked for that may be kept.
 */
export const isShared = ({ request, route, isDataRequest }: RequestEvent): boolean =>
	request.method === 'GET' && !isDataRequest && SHARED.has(route.id);

/** What runs is told to the second, also before the page counts by itself. */
const RUNS_MS = 1000;

/**
 * The answer to whoever asks for a shared page.
 * @param resolve makes the page of an event
 * @returns null where it has to be made for this person: it leads elsewhere, or is none
 */
export async function keptPage(
	event: RequestEvent,
	actor: Actor,
	resolve: Resolve
): Promise<Response | null> {
	const { locals, url } = event;
	const { db, session, site, theme } = locals;
	const variant = session && [session.shared, session.failuresBefore, session.hasPin];
	const name = JSON.stringify([actor.role, url.pathname, url.search, theme, variant]);
	const now = () => new Date();
	const get = (withinMs?: number) =>
		untilRecorded(
			{ db, site, now },
			`page ${name}${withinMs ?? ''}`,
			() => make(event, actor, resolve),
			withinMs
		);
	let kept = await get();
	if (kept?.runs && Date.now() - kept.madeMs > RUNS_MS) kept = await get(RUNS_MS);
	if (!kept) return null;
	return answer(kept, actor, async () => (await steadyNow({ db, now })).getTime());
}

async function make(event: RequestEvent, actor: Actor, resolve: Resolve): Promise<Kept | null> {
	const ids: string[] = [];
	event.locals.actor = anyone(actor.role);
	try {
		return await making.run(ids, async () => {
			const response = await resolve(event);
			const html = await response.text();
			return response.status === 200 ? keep(response.headers, html, ids) : null;
		});
	} finally {
		event.locals.actor = actor;
	}
}

const NONCE = /'nonce-([\w+/=-]+)'/;
/** What is of one answer alone. */
const NOT_KEPT = ['etag', 'content-length', 'set-cookie'];

function keep(headers: Headers, html: string, ids: readonly string[]): Kept {
	const nonce = NONCE.exec(headers.get('content-security-policy') ?? '')?.[1] ?? null;
	const marks = new Map([
		...Object.entries(MARKS),
		['moment', String(ANY_MOMENT)],
		['steady', String(ANY_STEADY_MOMENT)],
		...(nonce === null ? [] : [['nonce', nonce] as const]),
		...ids.map((id, i) => [`id ${i}`, id] as const)
	]);
	const blanked = takeApart(html, marks);
	const own = new Headers(headers);
	for (const name of NOT_KEPT) own.delete(name);
	return {
		...blanked,
		headers: own,
		nonce,
		runs: blanked.blanks.some(({ name }) => name === 'steady'),
		madeMs: Date.now()
	};
}

async function answer(kept: Kept, actor: Actor, steady: () => Promise<number>): Promise<Response> {
	const nonce = randomBytes(16).toString('base64');
	const own: Record<string, Filling> = {
		id: asWords(actor.id),
		name: asWords(actor.name),
		initials: asWords(actor.initials),
		moment: asIs(String(Date.now())),
		nonce: asIs(nonce),
		...(kept.runs ? { steady: asIs(String(await steady())) } : {})
	};
	const html = fillIn(kept, (blank) => own[blank] ?? asIs(randomUUID()));
	const headers = new Headers(kept.headers);
	const policy = headers.get('content-security-policy');
	if (policy !== null && kept.nonce !== null)
		headers.set('content-security-policy', policy.replaceAll(kept.nonce, nonce));
	return new Response(html, { headers });
}
