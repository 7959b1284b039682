import { asc, desc, eq, ilike, inArray } from 'drizzle-orm';
import { requireAnswered } from '../register/tables.ts';
import { writeTable } from '../../../core/csv/table.ts';
import type { Substance } from '../../../core/data/substance.ts';
import { SHIPPED, type SubstanceLibrary } from '../../../core/data/substances.ts';
import { emptyDraft, SUBSTANCE_COLUMNS } from '../../../core/substances/csv.ts';
import type { SubstanceTable } from '../../../core/substances/import.ts';
import { merged, siteLibrary, type SiteSubstance } from '../../../core/substances/library.ts';
import {
	type Disagreement,
	disagreements,
	keyOf,
	ownSubstance
} from '../../../core/substances/record.ts';
import { site } from '../../../core/verdict.ts';
import type { TableFile } from '../../../core/csv/ways.ts';
import type { Connection } from '../db/client.ts';
import { containing } from '../db/queries/contains.ts';
import { putSubstances } from '../db/queries/substances.ts';
import { siteSubstance, substanceChange, user } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { heavy } from '../jobs/heavy.ts';
import type { HeavyTasks, SubstanceTaken } from '../jobs/heavy-worker.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write, writeAfter } from '../kernel/write.ts';

const SITE_COLUMNS = {
	key: siteSubstance.key,
	own: siteSubstance.own,
	record: siteSubstance.record
};

/** The library as a decision about these keys needs it: the shipped one with what the site says of them. */
export async function libraryFor(
	db: Connection,
	keys: readonly (string | undefined)[]
): Promise<SubstanceLibrary> {
	const wanted = [...new Set(keys.filter((key) => key !== undefined))];
	if (wanted.length === 0) return SHIPPED;
	return siteLibrary(await siteRows(db, wanted));
}

const siteRows = (db: Connection, keys: string[]): Promise<SiteSubstance[]> =>
	db.select(SITE_COLUMNS).from(siteSubstance).where(inArray(siteSubstance.key, keys));

/** Substances whose name, synonym or CAS number holds a text: the shipped and the site's own. */
export async function searchSubstances(
	db: Connection,
	text: string,
	limit = 40
): Promise<Substance[]> {
	const tidy = text.trim().toLowerCase();
	const like = containing(tidy);
	const own = await db
		.select(SITE_COLUMNS)
		.from(siteSubstance)
		.where(tidy ? ilike(siteSubstance.words, like) : undefined)
		.orderBy(asc(siteSubstance.name))
		.limit(limit);
	const holds = (s: Substance) =>
		[s.name, s.cas ?? '', ...s.synonyms].some((word) => word.toLowerCase().includes(tidy));
	const shipped = SHIPPED.all.filter(holds).slice(0, limit);
	const corrected = await siteRows(
		db,
		shipped.map((s) => s.key)
	);
	const byKey = new Map(corrected.map((row) => [row.key, row]));
	const found = shipped.map((s) => merged(s.key, byKey.get(s.key)) ?? s);
	return [...own.filter((row) => row.own).map((row) => row.record as Substance), ...found]
		.sort((a, b) => nearness(b, tidy) - nearness(a, tidy) || a.name.localeCompare(b.name, 'en'))
		.slice(0, limit);
}

/** Names that begin with the text come before those that hold it. */
const nearness = (s: Substance, text: string) =>
	s.name.toLowerCase() === text || s.cas === text
		? 3
		: s.name.toLowerCase().startsWith(text)
			? 2
			: s.synonyms.some((word) => word.toLowerCase().startsWith(text))
				? 1
				: 0;

/** One substance with its corrections, their history and what in it contradicts itself. */
export async function substancePage(db: Connection, key: string) {
	const [row] = await db.select().from(siteSubstance).where(eq(siteSubstance.key, key));
	const substance = merged(key, row);
	if (!substance) throw new Refusal('not found', `The library holds no substance “${key}”.`);
	const changes = await db
		.select({ change: substanceChange, by: user.name })
		.from(substanceChange)
		.innerJoin(user, eq(user.id, substanceChange.changedBy))
		.where(eq(substanceChange.key, key))
		.orderBy(desc(substanceChange.changedAt))
		.limit(100);
	return {
		substance,
		own: row?.own ?? false,
		version: row?.version ?? 0,
		shipped: SHIPPED.all.find((s) => s.key === key) ?? null,
		changes,
		disagreements: disagreements(substance)
	};
}

/** What may be changed of a substance: values only, the name of a shipped one stays. */
export type SubstanceEdit = Partial<Omit<Substance, 'key' | 'origins'>>;

export interface SaveSubstance {
	id: string;
	/** null: a new one of the site's own. */
	key: string | null;
	edit: SubstanceEdit;
	why: string;
	version: number;
}

/**
 * Corrects a shipped substance or saves one of the site's own. The old value, who, when and why stay.
 * @returns its key
 */
export async function saveSubstance(context: Context, input: SaveSubstance): Promise<string> {
	return write(context, 'edit substances', { id: input.id, content: input }, async (at) => {
		const { tx } = at;
		if (!input.why.trim())
			throw new Refusal('invalid', 'Say why, and where the value comes from.', 'why');
		const key = input.key ?? keyOf(input.edit.name ?? '');
		const [held] = await tx
			.select()
			.from(siteSubstance)
			.where(eq(siteSubstance.key, key))
			.for('update');
		const before = merged(key, held);
		if (input.key && !before) throw new Refusal('not found', `The library holds no “${key}”.`);
		if (!input.key && before)
			throw new Refusal('conflict', `The library already holds ${before.name}.`, 'name');
		if (input.key && (held?.version ?? 0) !== input.version)
			throw new Refusal(
				'conflict',
				`${before?.name ?? key} was changed meanwhile. Nothing was written over; load it again.`
			);
		const own = held?.own ?? !before;
		const after = own
			? ownSubstance({ ...emptyDraft(), ...before, ...input.edit, key })
			: { ...before, ...input.edit };
		const changed = changedFields(before, after as Substance);
		if (changed.length === 0) return key;
		const origin = site(`${at.actor.name}: ${input.why.trim()}`);
		const origins = {
			...(held?.record.origins ?? {}),
			...Object.fromEntries(changed.map(({ field }) => [ORIGIN_FIELD[field] ?? field, origin]))
		};
		const recorded: Partial<Substance> = own
			? { ...(after as Substance), origins }
			: {
					...held?.record,
					...Object.fromEntries(changed.map(({ field, after: value }) => [field, value])),
					origins
				};
		await putSubstance(at, { key, own, record: recorded }, after as Substance, held?.version ?? 0);
		await tx.insert(substanceChange).values(
			changed.map((change, i) => ({
				// The first carries the client's id, so that a retry finds it.
				id: i === 0 ? input.id : crypto.randomUUID(),
				key,
				...change,
				why: input.why.trim(),
				changedBy: at.actor.id,
				changedAt: at.now
			}))
		);
		at.record(before ? 'substance.corrected' : 'substance.added', {
			of: key,
			payload: { name: (after as Substance).name, changed, why: input.why.trim() }
		});
		return key;
	});
}

/** Fields whose origin goes by another name. */
const ORIGIN_FIELD: Record<string, string> = { limits: 'limitUk' };

const FIELDS = [
	...['name', 'synonyms', 'cas', 'formula', 'form', 'organic', 'molarMassGPerMol', 'boilingPointC'],
	...['vapourPressureMmHg', 'antoine', 'liquidDensityGPerCm3', 'refractiveIndex', 'limits', 'rel'],
	...['idlh', 'lelPercent', 'odourThresholdPpm', 'warning', 'skin', 'skinHarmPpm', 'en', 'us'],
	...['noFilter', 'organs', 'harms', 'note']
] as (keyof Substance)[];

function changedFields(before: Substance | undefined, after: Substance) {
	return FIELDS.flatMap((field) => {
		const [was, is] = [before?.[field] ?? null, after[field] ?? null];
		return JSON.stringify(was) === JSON.stringify(is) ? [] : [{ field, before: was, after: is }];
	});
}

async function putSubstance(
	at: Work,
	row: SiteSubstance,
	whole: Substance,
	version: number
): Promise<void> {
	const { tx } = at;
	const values = {
		...row,
		name: whole.name,
		words: wordsOf(whole),
		changedBy: at.actor.id,
		changedAt: at.now,
		version: version + 1
	};
	if (version > 0) {
		await tx.update(siteSubstance).set(values).where(eq(siteSubstance.key, row.key));
		return;
	}
	const made = await tx
		.insert(siteSubstance)
		.values(values)
		.onConflictDoNothing()
		.returning({ key: siteSubstance.key });
	if (made.length === 0)
		throw new Refusal('conflict', `${whole.name} was changed meanwhile. Load it again.`);
}

/** What a substance is searched by. */
export const wordsOf = (s: Pick<Substance, 'name' | 'synonyms' | 'cas'>) =>
	[s.name, s.cas ?? '', ...s.synonyms].join(' · ').toLowerCase();

/** What an import would do, before anything is written. */
export interface SubstanceImport extends Omit<SubstanceTable, 'good'> {
	/** Own substances that would be added, and that would be changed. */
	added: { row: number; name: string; disagreements: Disagreement[] }[];
	replaced: { row: number; name: string }[];
}

type ReadSubstances = HeavyTasks['read substances']['out'];

/** Reads a file of substances: what would be added or changed, and every bad cell by row and column. */
export async function previewImport(
	{ db, actor }: Pick<Context, 'db' | 'actor'>,
	file: TableFile
): Promise<SubstanceImport> {
	requirePermission(actor.role, 'edit substances');
	return prepareImport(db, await heavy('read substances', file));
}

/** Tells what is new from what is held already. */
async function prepareImport(db: Connection, read: ReadSubstances): Promise<SubstanceImport> {
	const { taken, parts: _parts, count: _count, ...rest } = read;
	const prepared: SubstanceImport = { ...rest, added: [], replaced: [] };
	for (const part of taken) {
		const good = JSON.parse(part) as SubstanceTaken[];
		const rows = await siteRows(
			db,
			good.map(({ key }) => key)
		);
		const held = new Set(rows.map(({ key }) => key));
		for (const { row, key, name, disagreements } of good)
			if (held.has(key)) prepared.replaced.push({ row, name });
			else prepared.added.push({ row, name, disagreements });
	}
	return prepared;
}

/**
 * Imports a file of substances: all of its rows or, when one is bad and the caller did not ask to leave those
 * out, none.
 */
export async function importSubstances(
	context: Context,
	input: { id: string; file: TableFile; why: string; leaveOutBad: boolean }
): Promise<{ imported: number }> {
	const reading = () => heavy('read substances', input.file);
	const asked = { id: input.id, content: input };
	return writeAfter(context, 'edit substances', asked, reading, async (at, read) => {
		const { tx } = at;
		const { faults, count, parts } = read;
		requireAnswered(read.asks);
		if (faults.length && !input.leaveOutBad)
			throw new Refusal(
				'invalid',
				`${faults.length} cells are at fault; nothing was imported. Mend them, or leave those rows out.`,
				'file'
			);
		if (count === 0) throw new Refusal('invalid', 'No row is left to import.', 'file');
		const why = input.why.trim() || 'imported from a file';
		const origin = site(`${at.actor.name}: ${why}`);
		for (const part of parts) await upsertOwn(at, JSON.parse(part) as Substance[], origin);
		await tx.insert(substanceChange).values({
			id: input.id,
			key: 'import',
			field: 'file',
			before: null,
			after: { rows: count },
			why,
			changedBy: at.actor.id,
			changedAt: at.now
		});
		at.record('substances.imported', {
			of: input.id,
			payload: { rows: count, leftOut: faults.length, why }
		});
		return { imported: count };
	});
}

async function upsertOwn(
	at: Work,
	part: Substance[],
	origin: ReturnType<typeof site>
): Promise<void> {
	const { tx, now } = at;
	const rows = part.map((s) => ({
		key: s.key,
		own: true,
		record: { ...s, origins: { limitUs: origin, limitUk: origin, molarMassGPerMol: origin } },
		name: s.name,
		words: wordsOf(s),
		changedBy: at.actor.id,
		changedAt: now,
		version: 1
	}));
	await putSubstances(tx, rows);
}

/** The library as a CSV text: the site's own substances, or all with their corrections. */
export async function exportSubstances(db: Connection, which: 'own' | 'all'): Promise<string> {
	const rows = await db.select(SITE_COLUMNS).from(siteSubstance).orderBy(asc(siteSubstance.name));
	const substances =
		which === 'own'
			? rows.filter((row) => row.own).map((row) => row.record as Substance)
			: siteLibrary(rows).all;
	return writeTable(substances, SUBSTANCE_COLUMNS);
}
