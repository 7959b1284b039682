import { asc, eq, isNull } from 'drizzle-orm';
import { writeTable } from '../../../core/csv/table.ts';
import { WEARER_COLUMNS, type WearerRow } from '../../../core/people/wearer-table.ts';
import type { TableFile } from '../../../core/csv/ways.ts';
import type { Connection } from '../db/client.ts';
import { place, wearer, wearerPlace } from '../db/schema/index.ts';
import { heavy } from '../jobs/heavy.ts';
import type { Context } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import { writeAfter } from '../kernel/write.ts';
import { keepImport, requireRows, type TableGiven } from '../register/tables.ts';

/** Rows of one statement. */
const PART = 500;

async function readWearers({ db }: Pick<Context, 'db'>, file: TableFile) {
	const [numbers, places] = await Promise.all([
		db.select({ number: wearer.number }).from(wearer),
		placesHere(db)
	]);
	return heavy('read wearers', {
		file,
		held: { numbers: numbers.map(({ number }) => number), places: places.map(({ name }) => name) }
	});
}

const placesHere = (db: Connection) =>
	db.select({ id: place.id, name: place.name }).from(place).where(isNull(place.closedOn));

/** Whom a table would bring into the register; nothing is written. */
export async function previewWearers(context: Context, file: TableFile) {
	requirePermission(context.actor.role, 'keep wearers');
	const { wearers, faults, rows, unknown, encoding, asks } = await readWearers(context, file);
	return { newCount: wearers.length, faults, rows, unknown, encoding, asks };
}

/** Takes wearers in from a table: all of them or, when asked, all but those at fault. */
export async function importWearers(
	context: Context,
	input: TableGiven
): Promise<{ imported: number }> {
	try {
		return await writeAfter(
			context,
			'keep wearers',
			{ id: input.id, content: input },
			() => readWearers(context, input.file),
			async (at, { wearers, ...table }) => {
				requireRows(table, wearers.length, input.leaveOutBad);
				await keepImport(at, { id: input.id, kind: 'wearers', rows: wearers.length });
				const placeIds = new Map(
					(await placesHere(at.tx)).map(({ id, name }) => [name, id] as const)
				);
				const rows = wearers.map(({ places, ...values }) => ({
					values: { ...values, id: crypto.randomUUID(), importId: input.id },
					placeIds: [...new Set(places.flatMap((name) => placeIds.get(name) ?? []))]
				}));
				for (let i = 0; i < rows.length; i += PART) {
					const part = rows.slice(i, i + PART);
					await at.tx.insert(wearer).values(part.map(({ values }) => values));
					const works = part.flatMap(({ values, placeIds: ids }) =>
						ids.map((placeId) => ({ wearerId: values.id, placeId }))
					);
					if (works.length) await at.tx.insert(wearerPlace).values(works);
				}
				at.record('wearers.imported', { of: input.id, payload: { wearers: rows.length } });
				return { imported: rows.length };
			}
		);
	} catch (error) {
		if (brokenConstraint(error) === 'wearer_number')
			throw new Refusal('conflict', 'One of them came in meanwhile. Look at it again.', 'file');
		throw error;
	}
}

/** The wearers as CSV, as a table of them is taken in. */
export async function wearersCsv(db: Connection): Promise<string> {
	const [rows, places] = await Promise.all([
		db.select().from(wearer).where(isNull(wearer.leftOn)).orderBy(asc(wearer.number)),
		db
			.select({ wearerId: wearerPlace.wearerId, name: place.name })
			.from(wearerPlace)
			.innerJoin(place, eq(place.id, wearerPlace.placeId))
			.orderBy(asc(place.name))
	]);
	const placesOf = new Map<string, string[]>();
	for (const { wearerId, name } of places)
		placesOf.set(wearerId, [...(placesOf.get(wearerId) ?? []), name]);
	return writeTable(
		rows
			.filter(({ erasedOn }) => erasedOn === null)
			.map(({ id, number, name, eyewear, beard, clearedUntil, trainedUntil }): WearerRow => ({
				number,
				name,
				eyewear,
				beard,
				clearedUntil,
				trainedUntil,
				places: placesOf.get(id) ?? []
			})),
		WEARER_COLUMNS
	);
}
