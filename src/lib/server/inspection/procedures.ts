import { and, asc, desc, eq } from 'drizzle-orm';
import { airwayOf } from '../../../core/data/families.ts';
import { levelsOf, PROCEDURES, proceduresOf } from '../../../core/data/procedures.ts';
import { rejectCode } from '../../../core/data/reject-codes.ts';
import { checkProcedure, editionChanges } from '../../../core/inspection/edition.ts';
import type { Procedure, Step } from '../../../core/inspection/procedure.ts';
import { site } from '../../../core/verdict.ts';
import type { Connection } from '../db/client.ts';
import { procedureEdition, user } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';

/** Versions of the site start here, so that a later shipped version never takes the number of one of them. */
const SITE_VERSIONS_FROM = 101;
const LONGEST_REASON = 300;

/** How a version is written on screen. */
export const versionName = (version: number): string =>
	version < SITE_VERSIONS_FROM ? `shipped ${version}` : `site ${version - SITE_VERSIONS_FROM + 1}`;

type EditionRow = typeof procedureEdition.$inferSelect;

const asProcedure = (row: EditionRow): Procedure => ({
	key: row.key,
	version: row.version,
	name: row.name,
	family: row.family,
	...(row.school ? { school: row.school } : {}),
	purpose: row.purpose,
	...(levelsOf(row.key).length ? { levels: levelsOf(row.key) } : {}),
	origin: site(`${versionName(row.version)}: ${row.reason}`),
	steps: row.steps
});

/** A procedure in the version that a record names. */
export async function procedureAt(
	db: Connection,
	key: string,
	version: number
): Promise<Procedure> {
	const shipped = PROCEDURES.find((p) => p.key === key && p.version === version);
	if (shipped) return shipped;
	const [row] = await db
		.select()
		.from(procedureEdition)
		.where(and(eq(procedureEdition.key, key), eq(procedureEdition.version, version)));
	if (!row) throw new Refusal('not found', `There is no version ${version} of procedure ${key}.`);
	return asProcedure(row);
}

/** What is offered for a family now: the newest version of each procedure, the usual one first. */
export async function proceduresFor(db: Connection, family: string): Promise<Procedure[]> {
	const own = await db.select().from(procedureEdition).where(eq(procedureEdition.family, family));
	return proceduresOf(family, [...PROCEDURES, ...own.map(asProcedure)]);
}

/** Where something can be wrong by a procedure, and what, for a form that notes a fault outside of an inspection. */
export const whatCanBeWrong = (procedure: Procedure | undefined) =>
	(procedure?.steps ?? []).map(({ key, title, rejects }) => ({
		key,
		title,
		rejects: rejects.map((code) => ({ code, name: rejectCode(code).name }))
	}));

/** The step that such a form names. @throws Refusal where there is no such step, or it has no such code */
export function stepRejected(
	procedure: Procedure | undefined,
	found: { step: string; code: string }
): Step {
	const step = procedure?.steps.find((s) => s.key === found.step);
	if (!step) throw new Refusal('invalid', 'Choose where it is.', 'step');
	if (!step.rejects.includes(found.code))
		throw new Refusal('invalid', `Choose one of ${step.rejects.join(', ')}.`, 'code');
	return step;
}

/** Every procedure in its newest version. */
export async function procedureList(db: Connection): Promise<Procedure[]> {
	const own = await db.select().from(procedureEdition);
	const all = [...PROCEDURES, ...own.map(asProcedure)];
	return [...new Set(all.map((p) => p.family))].flatMap((family) => proceduresOf(family, all));
}

/** A procedure in every version, newest first, each with what it changed against the one before it. */
export async function editionsOf(db: Connection, key: string) {
	const rows = await db
		.select({ edition: procedureEdition, by: user.name })
		.from(procedureEdition)
		.innerJoin(user, eq(user.id, procedureEdition.madeBy))
		.where(eq(procedureEdition.key, key))
		.orderBy(asc(procedureEdition.version));
	const versions = [
		...PROCEDURES.filter((p) => p.key === key).map((procedure) => ({
			procedure,
			by: null as string | null,
			at: null as Date | null,
			reason: ''
		})),
		...rows.map(({ edition, by }) => ({
			procedure: asProcedure(edition),
			by: by as string | null,
			at: edition.madeAt as Date | null,
			reason: edition.reason
		}))
	];
	const [first] = versions;
	if (!first) throw new Refusal('not found', 'There is no such procedure.');
	return versions
		.map((version, i) => {
			const before = versions[i - 1];
			return {
				...version,
				name: versionName(version.procedure.version),
				changes: before ? editionChanges(before.procedure, version.procedure) : []
			};
		})
		.reverse();
}

/** Makes a new version of a procedure from the one that the page was opened with. */
export async function saveEdition(
	context: Context,
	input: {
		requestId: string;
		key: string;
		from: number;
		name: string;
		steps: Step[];
		reason: string;
	}
): Promise<number> {
	const overtaken = () =>
		new Refusal('conflict', 'A newer version was made meanwhile. Load the page again and compare.');
	const { requestId: id, ...content } = input;
	try {
		return await write(context, 'edit procedures', { id, content }, async (at) => {
			const { tx } = at;
			const reason = input.reason.trim();
			if (!reason) throw new Refusal('invalid', 'Say why it is changed.', 'reason');
			if (reason.length > LONGEST_REASON)
				throw new Refusal('invalid', `At most ${LONGEST_REASON} characters.`, 'reason');
			const before = await procedureAt(tx, input.key, input.from);
			const [newest] = await tx
				.select({ version: procedureEdition.version })
				.from(procedureEdition)
				.where(eq(procedureEdition.key, input.key))
				.orderBy(desc(procedureEdition.version))
				.limit(1);
			if (newest && newest.version !== input.from) throw overtaken();
			const after: Procedure = { ...before, name: input.name.trim(), steps: input.steps };
			checkProcedure(after, airwayOf(before.family));
			const changes = editionChanges(before, after);
			if (changes.length === 0 && after.name === before.name)
				throw new Refusal('invalid', 'Nothing was changed.', 'steps');
			const version = Math.max(SITE_VERSIONS_FROM, (newest?.version ?? 0) + 1);
			await tx.insert(procedureEdition).values({
				key: before.key,
				version,
				name: after.name,
				family: before.family,
				school: before.school ?? null,
				purpose: before.purpose ?? 'inspection',
				steps: input.steps,
				reason,
				madeBy: at.actor.id,
				madeAt: at.now
			});
			at.record('procedure.edition', {
				of: before.key,
				payload: {
					version,
					from: input.from,
					reason,
					changes: changes.map((c) =>
						[c.what, c.step, c.field, c.from, c.to].filter(Boolean).join(' · ')
					)
				}
			});
			return version;
		});
	} catch (error) {
		if (brokenConstraint(error)) throw overtaken();
		throw error;
	}
}
