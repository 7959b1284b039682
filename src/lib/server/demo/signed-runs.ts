import { setImmediate as turn } from 'node:timers/promises';
import type { Procedure } from '../../../core/inspection/procedure.ts';
import { type AnswerEvent, judgeRun } from '../../../core/inspection/run.ts';
import type { Connection } from '../db/client.ts';
import { insertReady, readyRows } from '../db/insert-many.ts';
import { inspectionHash } from '../db/queries/records.ts';
import { markSigned } from '../db/queries/seed.ts';
import { inspectionAnswer, inspectionRun } from '../db/schema/index.ts';
import type { Seed } from './seeding.ts';

/** An inspection as it was walked, of whatever family. */
export interface SignedWalk {
	id: string;
	itemId: string;
	procedure: Procedure;
	by: string;
	at: Date;
	answers: AnswerEvent[];
	/** Time from one answer to the next. */
	stepMs: number;
	ratedBar?: number | null;
	/** The repair that it proves. */
	serviceJobId?: string | undefined;
}

type AnswerRow = ReturnType<typeof answersOf>[number] & { runId: string };
type Written = Awaited<ReturnType<typeof written>>;
type Keep = (tx: Connection) => Promise<void>;
/** Worked out before the database is heard again. */
const WALKS_IN_A_ROW = 20;
const UNSIGNED = { signedBy: null, signedAt: null, outcome: null, reasons: null };

/**
 * Writes inspections with all their answers, judged and signed; the next are worked out while the last are written.
 * @param unguarded the guards of answers rest, so that an inspection may be signed before its answers are there
 */
export async function writeSigned(
	seed: Seed,
	groups: Iterable<readonly SignedWalk[]>,
	{ unguarded = false } = {}
): Promise<void> {
	let before: Promise<unknown> = Promise.resolve();
	for (const group of groups) {
		const next = (unguarded ? signedAtOnce : signedAfter)(await written(seed, group));
		await before;
		before = next(seed.tx);
		// Looked at when the next are ready; a failure meanwhile is not lost.
		before.catch(() => {});
	}
	await before;
}

/** The rows of inspections, as they stand once they are signed. */
async function written(seed: Seed, walks: readonly SignedWalk[]) {
	const answers: AnswerRow[] = [];
	const runs: ReturnType<typeof signed>[] = [];
	for (const [i, walk] of walks.entries()) {
		// Else the database waits for its next statement until all are done.
		if (i % WALKS_IN_A_ROW === 0) await turn();
		const run = signed(walk);
		const given = answersOf(seed, walk);
		seed.hashes.set(run.id, inspectionHash(run, given));
		seed.happen({
			at: run.signedAt,
			by: run.signedBy,
			action: 'inspection.signed',
			of: run.id,
			itemId: run.itemId,
			payload: {
				procedure: run.procedure,
				version: run.procedureVersion,
				outcome: run.outcome
			}
		});
		runs.push(run);
		for (const answer of given) answers.push({ ...answer, runId: run.id });
	}
	return { runs, answers };
}

const answersOf = (seed: Seed, walk: SignedWalk) =>
	walk.answers.map((answer, i) => ({
		id: seed.chance.uuid(),
		position: i + 1,
		step: answer.step,
		value: answer.value,
		code: answer.code ?? null,
		note: null,
		readings: answer.readings ?? null,
		answeredBy: walk.by,
		answeredAt: new Date(walk.at.getTime() + (i + 1) * walk.stepMs),
		receivedAt: null
	}));

/** A run as it was judged when it was signed, a step after its last answer. */
function signed({ id, itemId, by, at, answers, stepMs, procedure, ...walk }: SignedWalk) {
	const { key, version, steps } = procedure;
	const verdict = judgeRun(procedure, answers, (steps.length * stepMs) / 1000, {
		ratedBar: walk.ratedBar ?? null
	});
	return {
		id,
		itemId,
		procedure: key,
		procedureVersion: version,
		purpose: 'inspection' as const,
		serviceJobId: walk.serviceJobId ?? null,
		supersedes: null,
		supersedeReason: null,
		startedBy: by,
		startedAt: at,
		doneAt: null,
		doneBy: null,
		signedBy: by,
		signedAt: new Date(at.getTime() + (steps.length + 1) * stepMs),
		outcome: verdict.outcome,
		reasons: verdict.reasons
	};
}

/** Begun, answered, then signed, as inspections are. */
function signedAfter({ runs, answers }: Written): Keep {
	const begun = readyRows(
		inspectionRun,
		runs.map((run) => ({ ...run, ...UNSIGNED }))
	);
	const given = readyRows(inspectionAnswer, answers);
	return async (tx) => {
		await insertReady(tx, begun);
		await insertReady(tx, given);
		await markSigned(tx, runs);
	};
}

function signedAtOnce({ runs, answers }: Written): Keep {
	const ended = readyRows(inspectionRun, runs);
	const given = readyRows(inspectionAnswer, answers);
	return async (tx) => {
		await insertReady(tx, ended);
		await insertReady(tx, given);
	};
}
