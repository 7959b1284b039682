import { asc, eq, inArray, or, and, sql } from 'drizzle-orm';
import type { RecordKind } from '../../../../core/actions/action.ts';
import { canonicalJson } from '../../kernel/canonical-json.ts';
import { sha256 } from '../../kernel/sha256.ts';
import type { Connection } from '../client.ts';
import { insertMany } from '../insert-many.ts';
import {
	benchTest,
	hazardEdition,
	inspectionAnswer,
	inspectionRun,
	photo,
	recordHash,
	serviceJob,
	serviceJobDefect,
	servicePart
} from '../schema/index.ts';

/** The way in which the hash is worked out; another set of fields gets another. */
const WAY = 'r1';

const hashOf = (content: unknown) => `${WAY}:${sha256(canonicalJson(content))}`;

/** Rows by the record that they belong to. */
function byRecord<T extends { of: string }>(rows: readonly T[]): Map<string, Omit<T, 'of'>[]> {
	const found = new Map<string, Omit<T, 'of'>[]>();
	for (const { of, ...row } of rows) {
		const list = found.get(of) ?? [];
		list.push(row);
		found.set(of, list);
	}
	return found;
}

const inspections = async (db: Connection, ids: string[]) => {
	const runs = await db
		.select({
			id: inspectionRun.id,
			itemId: inspectionRun.itemId,
			procedure: inspectionRun.procedure,
			procedureVersion: inspectionRun.procedureVersion,
			serviceJobId: inspectionRun.serviceJobId,
			purpose: inspectionRun.purpose,
			supersedes: inspectionRun.supersedes,
			supersedeReason: inspectionRun.supersedeReason,
			startedBy: inspectionRun.startedBy,
			startedAt: inspectionRun.startedAt,
			doneAt: inspectionRun.doneAt,
			doneBy: inspectionRun.doneBy,
			signedBy: inspectionRun.signedBy,
			signedAt: inspectionRun.signedAt,
			outcome: inspectionRun.outcome,
			reasons: inspectionRun.reasons
		})
		.from(inspectionRun)
		.where(inArray(inspectionRun.id, ids));
	const answers = byRecord(
		await db
			.select({
				of: inspectionAnswer.runId,
				id: inspectionAnswer.id,
				position: inspectionAnswer.position,
				step: inspectionAnswer.step,
				value: inspectionAnswer.value,
				code: inspectionAnswer.code,
				note: inspectionAnswer.note,
				readings: inspectionAnswer.readings,
				answeredBy: inspectionAnswer.answeredBy,
				answeredAt: inspectionAnswer.answeredAt,
				receivedAt: inspectionAnswer.receivedAt
			})
			.from(inspectionAnswer)
			.where(inArray(inspectionAnswer.runId, ids))
			.orderBy(asc(inspectionAnswer.runId), asc(inspectionAnswer.position))
	);
	const photos = byRecord(
		await db
			.select({
				of: photo.runId,
				id: photo.id,
				step: photo.step,
				// Of the picture itself, whatever stands beside it.
				jpeg: sql<string>`encode(sha256(${photo.jpeg}), 'hex')`,
				takenBy: photo.takenBy,
				takenAt: photo.takenAt
			})
			.from(photo)
			.where(inArray(photo.runId, ids))
			.orderBy(asc(photo.id))
	);
	return runs.map((run) => ({
		id: run.id,
		content: inspectionContent(run, answers.get(run.id) ?? [], photos.get(run.id) ?? [])
	}));
};

type RunRow = typeof inspectionRun.$inferSelect;
type AnswerRow = typeof inspectionAnswer.$inferSelect;

/** All that belongs to an inspection, as its hash is worked out over it. */
function inspectionContent(
	{ doneAt, doneBy, ...run }: Omit<RunRow, 'assistantId'>,
	answers: readonly Omit<AnswerRow, 'runId'>[],
	photos: readonly object[]
) {
	// What was typed in from paper says so; of others nothing is added, so that older hashes hold.
	return { run: doneAt ? { ...run, doneAt, doneBy } : run, answers, photos };
}

/** The hash of an inspection without pictures, of what is about to be written of it. */
export const inspectionHash = (
	run: Omit<RunRow, 'assistantId'>,
	answers: readonly Omit<AnswerRow, 'runId'>[]
): string => hashOf(inspectionContent(run, answers, []));

const repairs = async (db: Connection, ids: string[]) => {
	const jobs = await db
		.select({
			id: serviceJob.id,
			itemId: serviceJob.itemId,
			repair: serviceJob.repair,
			startedBy: serviceJob.startedBy,
			startedAt: serviceJob.startedAt,
			proof: serviceJob.proof,
			doneBy: serviceJob.doneBy,
			doneAt: serviceJob.doneAt,
			releasedBy: serviceJob.releasedBy,
			releasedAt: serviceJob.releasedAt,
			note: serviceJob.note
		})
		.from(serviceJob)
		.where(inArray(serviceJob.id, ids));
	const defects = byRecord(
		await db
			.select({ of: serviceJobDefect.jobId, defectId: serviceJobDefect.defectId })
			.from(serviceJobDefect)
			.where(inArray(serviceJobDefect.jobId, ids))
			.orderBy(asc(serviceJobDefect.defectId))
	);
	const parts = byRecord(
		await db
			.select({ of: servicePart.jobId, lotId: servicePart.lotId, quantity: servicePart.quantity })
			.from(servicePart)
			.where(inArray(servicePart.jobId, ids))
			.orderBy(asc(servicePart.lotId))
	);
	return jobs.map((job) => ({
		id: job.id,
		content: { job, defects: defects.get(job.id) ?? [], parts: parts.get(job.id) ?? [] }
	}));
};

const editions = async (db: Connection, ids: string[]) => {
	const rows = await db
		.select({
			id: hazardEdition.id,
			planId: hazardEdition.planId,
			edition: hazardEdition.edition,
			version: hazardEdition.version,
			task: hazardEdition.task,
			place: hazardEdition.place,
			facts: hazardEdition.facts,
			outcome: hazardEdition.outcome,
			reviewOn: hazardEdition.reviewOn,
			expiresOn: hazardEdition.expiresOn,
			note: hazardEdition.note,
			approvedBy: hazardEdition.approvedBy,
			approvedAt: hazardEdition.approvedAt
		})
		.from(hazardEdition)
		.where(
			or(
				...ids.map((id) => {
					const [planId = '', edition = ''] = id.split('/');
					return and(eq(hazardEdition.planId, planId), eq(hazardEdition.edition, Number(edition)));
				})
			)
		);
	return rows.map((edition) => ({
		id: `${edition.planId}/${edition.edition}`,
		content: edition
	}));
};

const benchTests = async (db: Connection, ids: string[]) => {
	const rows = await db
		.select({
			id: benchTest.id,
			itemId: benchTest.itemId,
			recipe: benchTest.recipe,
			recipeVersion: benchTest.recipeVersion,
			instrument: benchTest.instrument,
			volumeL: benchTest.volumeL,
			startedBy: benchTest.startedBy,
			startedAt: benchTest.startedAt,
			endedAt: benchTest.endedAt,
			outcome: benchTest.outcome,
			reasons: benchTest.reasons,
			leakPaPerMin: benchTest.leakPaPerMin,
			startPa: benchTest.startPa,
			correctedEndPa: benchTest.correctedEndPa,
			trace: sql<string>`encode(sha256(${benchTest.trace}), 'hex')`
		})
		.from(benchTest)
		.where(inArray(benchTest.id, ids));
	return rows.map((test) => ({ id: test.id, content: test }));
};

const READ: Record<
	RecordKind,
	(db: Connection, ids: string[]) => Promise<{ id: string; content: unknown }[]>
> = {
	inspection: inspections,
	repair: repairs,
	'plan edition': editions,
	'bench test': benchTests
};

/** Records that one statement reads. */
const CHUNK = 200;

/** The hash of all that belongs to each record, as it stands now, by the id of the record. */
export async function recordHashes(
	db: Connection,
	kind: RecordKind,
	ids: readonly string[]
): Promise<Map<string, string>> {
	const hashes = new Map<string, string>();
	for (let i = 0; i < ids.length; i += CHUNK)
		for (const { id, content } of await READ[kind](db, ids.slice(i, i + CHUNK)))
			hashes.set(id, hashOf(content));
	return hashes;
}

/** Keeps the hashes of records beside them. */
export const keepHashes = (
	tx: Connection,
	rows: readonly (typeof recordHash.$inferInsert)[]
): Promise<void> => insertMany(tx, recordHash, rows);

/** The hashes that are kept beside records. */
export async function keptHashes(
	db: Connection,
	kind: RecordKind,
	ids: readonly string[]
): Promise<Map<string, string>> {
	const rows = ids.length
		? await db
				.select({ id: recordHash.recordId, hash: recordHash.hash })
				.from(recordHash)
				.where(and(eq(recordHash.kind, kind), inArray(recordHash.recordId, [...ids])))
		: [];
	return new Map(rows.map(({ id, hash }) => [id, hash]));
}

/** Signed inspections and released repairs that no hash is kept of, the newest first. */
export async function unhashed(
	db: Connection
): Promise<{ kind: RecordKind; id: string; at: Date }[]> {
	const lacks = (kind: RecordKind, id: unknown) =>
		sql`not exists (select 1 from ${recordHash} where ${recordHash.kind} = ${kind} and ${recordHash.recordId} = ${id}::text)`;
	const runs = await db
		.select({ id: inspectionRun.id, at: inspectionRun.signedAt })
		.from(inspectionRun)
		.where(and(sql`${inspectionRun.signedAt} is not null`, lacks('inspection', inspectionRun.id)));
	const jobs = await db
		.select({ id: serviceJob.id, at: serviceJob.releasedAt })
		.from(serviceJob)
		.where(and(sql`${serviceJob.releasedAt} is not null`, lacks('repair', serviceJob.id)));
	return [
		...runs.map(({ id, at }) => ({ kind: 'inspection' as const, id, at: at ?? new Date(0) })),
		...jobs.map(({ id, at }) => ({ kind: 'repair' as const, id, at: at ?? new Date(0) }))
	].sort((a, b) => b.at.getTime() - a.at.getTime());
}

/** When the first record was made whole that a hash is kept of; undefined where there is none. */
export async function hashedSince(db: Connection): Promise<Date | undefined> {
	const [run] = await db
		.select({ at: inspectionRun.signedAt })
		.from(recordHash)
		.innerJoin(
			inspectionRun,
			and(
				eq(recordHash.kind, 'inspection'),
				sql`${recordHash.recordId} = ${inspectionRun.id}::text`
			)
		)
		.orderBy(asc(inspectionRun.signedAt))
		.limit(1);
	return run?.at ?? undefined;
}
