import {
	type ActionName,
	checkPayload,
	type PayloadOf,
	signsBy,
	subjectOf
} from '../../../core/actions/catalogue.ts';
import type { Day } from '../../../core/plan/calendar.ts';
import type { Connection } from '../db/client.ts';
import { claim, firstAnswer, keepAnswer } from '../db/queries/requests.ts';
import { rebuildState } from '../readiness/rebuild.ts';
import { appendEntries, type NewEntry } from './audit.ts';
import { canonicalJson } from './canonical-json.ts';
import { type Actor, type Context, type Reader, todayOf, type Unattended } from './context.ts';
import { type Permission, requirePermission } from './permissions.ts';
import { requireProof } from './proof.ts';
import { withRecordHashes } from './record-hash.ts';
import { inTurn, stillBeingDone } from './in-turn.ts';
import { asRefusal, brokenConstraint, Refusal, tooLong } from './refusal.ts';
import { sha256 } from './sha256.ts';
import type { Machine } from './steady.ts';
import { loadSite, type Site } from './site.ts';

/** An id that the client made for what it asks, and what must be the same when it asks again. */
export interface Requested {
	id: string;
	content: unknown;
}

/** What the work of a write has at hand. All of it happens, or nothing. */
export interface Work {
	tx: Connection;
	now: Date;
	site: Site;
	today: Day;
	/** The machine that it is done on; this one without. */
	machine?: Machine | undefined;
	actor: Actor;
	/** Names items whose state may have changed; it is rebuilt once, after the work. */
	changed: (...itemIds: string[]) => void;
	/** Works the state of items out now: for long work that says how far it is. */
	rebuild: (itemIds: readonly string[]) => Promise<void>;
	/** Records what happened; written after the work, in the order of the calls. */
	record: <N extends ActionName>(action: N, entry: Recorded<N>) => void;
}

export interface Recorded<N extends ActionName> {
	/** Id of what it was done to, of the kind that the catalogue says. */
	of: string;
	itemId?: string | null;
	payload: PayloadOf<N>;
}

/**
 * The one way to change anything. Checks the permission, claims the id of the request, works, rebuilds the state of
 * what was changed, and writes the log last, so that the end of its chain is held for the shortest time.
 *
 * A second send of an id with the same content gets the first answer; with other content a refusal. Talking to an
 * instrument has no place in the work: see {@link writeAfter}.
 * @returns what the work gave, as JSON keeps it
 * @throws Refusal where the role does not hold the permission, or the id was used for something else
 */
export async function write<T>(
	context: Context,
	permission: Permission,
	request: Requested,
	work: (at: Work) => Promise<T>
): Promise<T> {
	requirePermission(context.actor.role, permission);
	return transact(context, context.actor, request, work, signing(context));
}

/** A signature is taken from nobody who did not show that it is them. */
const signing = (context: Context) => (what: string) => requireProof(context, what);

/**
 * A write that needs something from outside first, such as a reading of an instrument: it is asked for before the
 * transaction is opened, and not again where the request was answered already.
 */
export async function writeAfter<P, T>(
	context: Context,
	permission: Permission,
	request: Requested,
	ask: () => Promise<P>,
	work: (at: Work, asked: P) => Promise<T>
): Promise<T> {
	requirePermission(context.actor.role, permission);
	return inTurn(context.db, request.id, async () => {
		const before = await firstAnswer(context.db, request.id);
		if (before) return answerAgain<T>(before, digestOf(context.actor.id, request.content));
		const asked = await ask();
		return transact(context, context.actor, request, (at) => work(at, asked), signing(context));
	});
}

class Undone<T> {
	constructor(readonly answer: T) {}
}

/** Does the work of a write to see what would come of it, and undoes all of it. */
export async function rehearse<T>(
	context: Context,
	permission: Permission,
	work: (at: Work) => Promise<T>
): Promise<T> {
	requirePermission(context.actor.role, permission);
	try {
		await transact(context, context.actor, null, async (at) => {
			throw new Undone(await work(at));
		});
	} catch (thrown) {
		if (thrown instanceof Undone) return thrown.answer as T;
		throw thrown;
	}
	throw new Error('A rehearsal always ends undone.');
}

/**
 * Does a part of a write that may be refused alone: then nothing of it is left, and the rest goes on.
 * @returns the refusal; null: it was done
 */
export async function attempt(
	at: Work,
	work: (part: Work) => Promise<unknown>
): Promise<Refusal | null> {
	const kept: (() => void)[] = [];
	try {
		await at.tx.transaction(async (tx) => {
			await work({
				...at,
				tx,
				changed: (...ids) => kept.push(() => at.changed(...ids)),
				record: (action, entry) => kept.push(() => at.record(action, entry))
			});
		});
	} catch (cause) {
		const refusal = brokenConstraint(cause)
			? new Refusal('conflict', 'That is on record already, or cannot be so.')
			: asRefusal(cause);
		if (!refusal || refusal.kind === 'unavailable') throw cause;
		return refusal;
	}
	for (const keep of kept) keep();
	return null;
}

/** What Grevan itself does, or goes on with for somebody who asked for it before. */
export async function writeUnattended<T>(
	context: Unattended,
	onBehalfOf: Actor | null,
	work: (at: Work) => Promise<T>
): Promise<T> {
	return transact(context, onBehalfOf, null, work);
}

async function transact<T>(
	context: Unattended,
	actor: Actor | null,
	request: Requested | null,
	work: (at: Work) => Promise<T>,
	signing: (what: string) => void = () => {}
): Promise<T> {
	return context.db.transaction(async (tx) => {
		if (request) {
			const digest = digestOf(actor?.id ?? '', request.content);
			if (!(await claimed(tx, { id: request.id, digest, at: context.now() }))) {
				const before = await firstAnswer(tx, request.id);
				if (before) return answerAgain<T>(before, digest);
			}
		}
		const entries: NewEntry[] = [];
		// By the rules that hold now: those of the session may be some seconds old.
		let held: Promise<Site> | undefined;
		const rules = () => (held ??= loadSite(tx));
		const changed = new Set<string>();
		const now = context.now();
		const answer = await work({
			tx,
			now,
			machine: context.machine,
			site: context.site,
			today: todayOf({ now: () => now, site: context.site }),
			get actor() {
				if (!actor) throw new Error('Nobody acts here.');
				return actor;
			},
			changed: (...itemIds) => itemIds.forEach((id) => changed.add(id)),
			rebuild: async (itemIds) => rebuildState(tx, itemIds, await rules()),
			record: (action, { of, itemId, payload }) => {
				const signs = signsBy(action);
				if (signs) signing(signs);
				entries.push({
					actorId: actor?.id ?? null,
					action,
					subject: subjectOf(action, of),
					itemId: itemId ?? null,
					payload: checkPayload(action, payload)
				});
			}
		});
		if (changed.size) await rebuildState(tx, [...changed], await rules());
		if (request && answer !== undefined) await keepAnswer(tx, request.id, answer);
		if (entries.length) await appendEntries(tx, await withRecordHashes(tx, entries));
		return answer;
	});
}

/** Takes the id of a request. @throws Refusal where another send of it takes long */
async function claimed(tx: Connection, request: Parameters<typeof claim>[1]): Promise<boolean> {
	try {
		return await claim(tx, request);
	} catch (error) {
		throw tooLong(error) ? stillBeingDone() : error;
	}
}

/** What a write reads with what services read by. */
export const readerOf = ({ tx, now, site }: Work): Reader => ({ db: tx, now: () => now, site });

const digestOf = (actorId: string, content: unknown): string =>
	sha256(`${actorId}\n${canonicalJson(content)}`);

function answerAgain<T>(before: { digest: string; answer: unknown }, digest: string): T {
	if (before.digest !== digest)
		throw new Refusal(
			'conflict',
			'The page sent something else under the same number before. Nothing was changed; load the page again.'
		);
	return (before.answer ?? undefined) as T;
}
