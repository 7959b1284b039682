import { and, asc, count, eq, inArray, isNull } from 'drizzle-orm';
import { countOf, FAMILIES, inSentence } from '../../../core/data/families.ts';
import { changesBetween } from '../../../core/site/changes.ts';
import type { PlaceKind, StorageTrait } from '../../../core/site/places.ts';
import type { Connection } from '../db/client.ts';
import { item, place, placeFloor, user } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';

/** Places in use with who answers for them, their floors and how many items stand there. */
export async function listPlaces(db: Connection) {
	const [places, floors, items] = await Promise.all([
		db
			.select({ place, responsibleName: user.name })
			.from(place)
			.leftJoin(user, eq(user.id, place.responsible))
			.where(isNull(place.closedOn))
			.orderBy(asc(place.name)),
		db.select().from(placeFloor),
		db
			.select({ placeId: item.placeId, family: item.family, n: count() })
			.from(item)
			.where(isNull(item.retiredOn))
			.groupBy(item.placeId, item.family)
	]);
	return places.map(({ place: one, responsibleName }) => {
		const has = Object.fromEntries(
			items.filter((row) => row.placeId === one.id).map((row) => [row.family, row.n])
		);
		return {
			...one,
			responsibleName,
			floors: Object.fromEntries(
				floors.filter((row) => row.placeId === one.id).map((row) => [row.family, row.floor])
			),
			has,
			items: Object.values(has).reduce((sum, n) => sum + n, 0)
		};
	});
}

/** Everyone who may answer for a place. */
export const peopleFor = (db: Connection) =>
	db
		.select({ id: user.id, name: user.name })
		.from(user)
		.where(isNull(user.disabledAt))
		.orderBy(asc(user.name));

export interface PlaceInput {
	requestId: string;
	id: string;
	/** 0 for a new place; else the version that the page was loaded with. */
	version: number;
	name: string;
	kind: PlaceKind;
	storage: StorageTrait[];
	responsible: string | null;
	/** How many of each family it keeps ready; left out: none. */
	floors: Readonly<Record<string, number>>;
	/** A floor above what stands there is meant: more is to come. */
	above: boolean;
}

const NAMES = {
	name: 'name',
	kind: 'kind',
	storage: 'storage',
	responsible: 'who answers for it'
} as const;

/** Adds a place, or changes what is said of it and how many it keeps ready. Recorded with old and new. */
export async function savePlace(context: Context, input: PlaceInput): Promise<void> {
	const { requestId, ...content } = input;
	try {
		await write(context, 'keep the site', { id: requestId, content }, async (at) => {
			const { tx } = at;
			const [held] = await tx.select().from(place).where(eq(place.id, input.id)).for('update');
			if (held?.closedOn) throw new Refusal('conflict', `${held.name} was closed.`);
			if ((held?.version ?? 0) !== input.version)
				throw new Refusal(
					'conflict',
					`${held?.name ?? 'The place'} was changed meanwhile. Nothing was written over; load it again.`
				);
			await checkFloors(tx, input);
			const { name, kind, responsible } = input;
			const storage = [...input.storage].sort();
			const values = { name, kind, storage, responsible };
			if (!held) {
				await tx.insert(place).values({ id: input.id, ...values });
				at.record('place.added', { of: input.id, payload: { name } });
			}
			const changes = [
				...(held ? await inWords(tx, { ...held, storage: [...held.storage].sort() }, values) : []),
				...(await saveFloors(at, input))
			];
			if (held)
				await tx
					.update(place)
					.set({ ...values, version: held.version + 1 })
					.where(eq(place.id, input.id));
			if (changes.length)
				at.record('place.changed', {
					of: input.id,
					payload: { name: held?.name ?? name, changes }
				});
		});
	} catch (error) {
		if (brokenConstraint(error)?.startsWith('place_name'))
			throw new Refusal('conflict', `There is a place named ${input.name} already.`, 'name');
		throw error;
	}
}

type PlaceState = Pick<typeof place.$inferSelect, 'name' | 'kind' | 'storage' | 'responsible'>;

/** What changed of a place, people by their names. */
async function inWords(tx: Connection, before: PlaceState, after: PlaceState) {
	const ids = [before.responsible, after.responsible].flatMap((id) => id ?? []);
	const people = ids.length
		? await tx.select({ id: user.id, name: user.name }).from(user).where(inArray(user.id, ids))
		: [];
	const named = ({ responsible, ...state }: PlaceState) => ({
		...state,
		responsible: people.find(({ id }) => id === responsible)?.name ?? null
	});
	return changesBetween(named(before), named(after), NAMES);
}

/** @throws Refusal where a floor is of an unknown family, or above what stands there and that is not meant */
async function checkFloors(tx: Connection, { id, floors, above }: PlaceInput): Promise<void> {
	const stray = Object.keys(floors).find((key) => !FAMILIES.some(({ family }) => family === key));
	if (stray) throw new Refusal('invalid', `There is no kind of equipment “${stray}”.`, 'floors');
	if (above) return;
	const has = await tx
		.select({ family: item.family, n: count() })
		.from(item)
		.where(and(eq(item.placeId, id), isNull(item.retiredOn)))
		.groupBy(item.family);
	const over = Object.entries(floors).filter(
		([family, floor]) => floor > (has.find((row) => row.family === family)?.n ?? 0)
	);
	if (over.length)
		throw new Refusal(
			'invalid',
			`More than stands there: ${over
				.map(([family, floor]) => {
					const n = has.find((row) => row.family === family)?.n ?? 0;
					return `${countOf(family, floor)} wanted, ${n} there`;
				})
				.join('; ')}. It would be short from the start. Tick that more is to come, or lower it.`,
			'floors'
		);
}

async function saveFloors({ tx }: Work, { id, floors }: PlaceInput) {
	const rows = await tx.select().from(placeFloor).where(eq(placeFloor.placeId, id));
	const before = new Map(rows.map((row) => [row.family, row.floor]));
	const changes = [];
	for (const { family, plural } of FAMILIES) {
		const [from, to] = [before.get(family) ?? 0, floors[family] ?? 0];
		if (from === to) continue;
		await tx
			.insert(placeFloor)
			.values({ placeId: id, family, floor: to })
			.onConflictDoUpdate({
				target: [placeFloor.placeId, placeFloor.family],
				set: { floor: to }
			});
		changes.push({
			what: `floor of ${inSentence(plural)}`,
			from: String(from),
			to: String(to)
		});
	}
	return changes;
}

/** Closes a place at which nothing stands any more. @throws Refusal where something does */
export function closePlace(
	context: Context,
	input: { requestId: string; id: string }
): Promise<void> {
	const { requestId, ...content } = input;
	return write(context, 'keep the site', { id: requestId, content }, async (at) => {
		const { tx } = at;
		const [held] = await tx.select().from(place).where(eq(place.id, input.id)).for('update');
		if (!held) throw new Refusal('not found', 'There is no such place.');
		if (held.closedOn) return;
		const there = await tx
			.select({ tag: item.tag })
			.from(item)
			.where(and(eq(item.placeId, held.id), isNull(item.retiredOn)))
			.orderBy(asc(item.tag));
		if (there.length)
			throw new Refusal(
				'conflict',
				`${there.length} items stand at ${held.name}: ${there
					.slice(0, 5)
					.map(({ tag }) => tag)
					.join(', ')}${there.length > 5 ? ', …' : ''}. Move them first.`
			);
		await tx
			.update(place)
			.set({ closedOn: at.today, version: held.version + 1 })
			.where(eq(place.id, held.id));
		await tx.update(placeFloor).set({ floor: 0 }).where(eq(placeFloor.placeId, held.id));
		at.record('place.closed', { of: held.id, payload: { name: held.name } });
	});
}
