import { and, asc, eq, gt, inArray, isNull, lt, ne } from 'drizzle-orm';
import { judgeBatch } from '../../../core/care/batch.ts';
import { routeOf } from '../../../core/data/care-routes.ts';
import type { Where } from '../../../core/custody/custody.ts';
import {
	careLook,
	custody,
	cylinder,
	fitTest,
	handOut,
	hazardPlan,
	item,
	itemModel,
	itemReturn,
	itemState,
	personalItem,
	stockContainer,
	washBatch,
	washBatchItem,
	washReading,
	wearer
} from '../db/schema/index.ts';
import { plusDays } from '../../../core/plan/calendar.ts';
import { Chance } from '../../../core/stats/chance.ts';
import type { Seed } from './seeding.ts';

/** A source of its own, so that what is out does not change what else the demo is. */
const SEED = 77_031;
const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
/** Masks before this tag stay on their shelves: they are what a newcomer tries things with. */
const FROM_TAG = 'HM-0134';
const TASK = 'Sanding hull boards';

interface Piece {
	id: string;
	tag: string;
	family: string;
	placeId: string;
	modelId: string;
	size: string;
}

/** What is out, what came back dirty, what is dry and waits, and the batches before. @returns items whose state changed */
export async function seedCustody(seed: Seed, now: Date): Promise<string[]> {
	const chance = new Chance(SEED);
	const stock = await seedStock(seed, chance);
	const masks = await readyMasks(seed);
	const by = seed.person('ilse');
	const take = (n: number) => masks.splice(0, n);
	const [out, dirty, dry] = [take(7), take(6), take(5)];
	const washed = await readyMasks(seed, true);
	const [past, hot] = [washed.splice(0, 8), washed.splice(0, 5)];
	await issue(seed, chance, out, now, by);
	await bringBack(seed, chance, dirty, now, by);
	const ended = { stock, by };
	await batch(seed, chance, past, { ...ended, endedAt: new Date(now.getTime() - 75 * HOUR) });
	await batch(seed, chance, hot, {
		...ended,
		endedAt: new Date(now.getTime() - 27 * HOUR),
		celsius: 46.5
	});
	await batch(seed, chance, dry, {
		...ended,
		endedAt: new Date(now.getTime() - 0.6 * HOUR),
		waits: true
	});
	const cylinders = await cylindersInStep(seed, now);
	return [...[...out, ...dirty, ...dry].map(({ id }) => id), ...cylinders];
}

/** Stock for the bath: one that loses strength, one that keeps, one that goes by its label. */
async function seedStock(seed: Seed, chance: Chance): Promise<string> {
	const stock = chance.uuid();
	const opened = (days: number) => plusDays(seed.today, -days);
	const rows = [
		{
			id: stock,
			name: 'Canister 7',
			agent: 'chlorine' as const,
			percent: 4.8,
			openedOn: opened(46),
			halfLifeDays: 180,
			expiresOn: plusDays(seed.today, 130),
			leftMl: 3400
		},
		{
			id: chance.uuid(),
			name: 'Tincture 2',
			agent: 'iodine' as const,
			percent: 6.25,
			openedOn: opened(80),
			halfLifeDays: null,
			expiresOn: plusDays(seed.today, 280),
			leftMl: 700
		},
		{
			id: chance.uuid(),
			name: 'Bottle Q 4',
			agent: 'quaternary ammonium' as const,
			percent: null,
			openedOn: opened(12),
			halfLifeDays: null,
			expiresOn: plusDays(seed.today, 350),
			leftMl: 1900,
			labelMin: 10
		}
	];
	await seed.tx.insert(stockContainer).values(rows);
	for (const { id, name, agent, leftMl, openedOn } of rows)
		seed.happen({
			action: 'stock.opened',
			by: seed.person('ilse'),
			at: new Date(`${openedOn}T08:10:00Z`),
			of: id,
			payload: { name, agent, leftMl }
		});
	return stock;
}

/** Half masks that are ready and nobody’s own: those that go out, or those that stay on their shelves. */
async function readyMasks({ tx, today }: Seed, before = false): Promise<Piece[]> {
	return tx
		.select({
			id: item.id,
			tag: item.tag,
			family: item.family,
			placeId: item.placeId,
			modelId: item.modelId,
			size: item.size
		})
		.from(item)
		.innerJoin(itemState, eq(itemState.itemId, item.id))
		.leftJoin(personalItem, eq(personalItem.itemId, item.id))
		.where(
			and(
				eq(item.family, 'half-mask'),
				before ? lt(item.tag, FROM_TAG) : gt(item.tag, FROM_TAG),
				ne(item.tag, 'HM-0151'),
				isNull(itemState.blocked),
				gt(itemState.dueFrom, today),
				isNull(personalItem.itemId)
			)
		)
		.orderBy(asc(item.tag));
}

/** Puts something where it is, after it lay on its shelf. */
async function put(
	{ tx }: Seed,
	piece: Piece,
	to: { where: Where; since: Date; by: string } & Partial<typeof custody.$inferInsert>
): Promise<void> {
	await tx
		.update(custody)
		.set({ until: to.since })
		.where(and(eq(custody.itemId, piece.id), isNull(custody.until)));
	const { by, ...row } = to;
	await tx.insert(custody).values({ itemId: piece.id, movedBy: by, ...row });
}

/** People who may wear something by a fit test that they passed. */
async function fittedTo({ tx }: Seed, pieces: readonly Piece[]) {
	const rows = await tx
		.selectDistinctOn([fitTest.wearerId], {
			id: wearer.id,
			number: wearer.number,
			modelId: fitTest.modelId,
			size: fitTest.size
		})
		.from(fitTest)
		.innerJoin(wearer, eq(wearer.id, fitTest.wearerId))
		.where(
			and(
				eq(fitTest.passed, true),
				eq(wearer.beard, false),
				inArray(
					fitTest.modelId,
					pieces.map(({ modelId }) => modelId)
				)
			)
		)
		.orderBy(fitTest.wearerId);
	return rows.toSorted((a, b) => a.number.localeCompare(b.number));
}

async function issue(seed: Seed, chance: Chance, pieces: Piece[], now: Date, by: string) {
	const people = await fittedTo(seed, pieces);
	const [plan] = await seed.tx.select().from(hazardPlan).where(eq(hazardPlan.task, TASK));
	const taken = new Set<string>();
	for (const [i, piece] of pieces.entries()) {
		const person = people.find(
			({ id, modelId, size }) => !taken.has(id) && modelId === piece.modelId && size === piece.size
		);
		if (!person || !plan) continue;
		taken.add(person.id);
		// The first should have been back yesterday.
		const handedAt = new Date(now.getTime() - (i === 0 ? 19 * HOUR : (40 + i * 13) * MINUTE));
		const minutes = 180;
		const id = chance.uuid();
		await seed.tx.insert(handOut).values({
			id,
			wearerId: person.id,
			planId: plan.id,
			minutes,
			outcome: 'hand out',
			reasons: [],
			dueBackAt: new Date(handedAt.getTime() + (minutes + 60) * MINUTE),
			handedBy: by,
			handedAt
		});
		await put(seed, piece, {
			where: 'issued',
			wearerId: person.id,
			handOutId: id,
			since: handedAt,
			by
		});
		seed.happen({
			action: 'item.handed-out',
			by,
			at: handedAt,
			of: piece.id,
			itemId: piece.id,
			payload: { wearer: person.number, task: TASK, outcome: 'hand out', reasons: [] }
		});
	}
}

async function bringBack(seed: Seed, chance: Chance, pieces: Piece[], now: Date, by: string) {
	const people = await fittedTo(seed, pieces);
	for (const [i, piece] of pieces.entries()) {
		const at = new Date(now.getTime() - (20 + i * 31) * MINUTE);
		const minutes = chance.int(6, 20) * 10;
		const person = people[(i * 7) % Math.max(1, people.length)];
		await seed.tx.insert(itemReturn).values({
			id: chance.uuid(),
			itemId: piece.id,
			wearerId: person?.id ?? null,
			used: true,
			minutes,
			returnedBy: by,
			returnedAt: at
		});
		await put(seed, piece, { where: 'returned', since: at, by });
		seed.happen({
			action: 'item.returned',
			by,
			at,
			of: piece.id,
			itemId: piece.id,
			payload: {
				wearer: person?.number ?? null,
				used: true,
				minutes,
				bar: null,
				noticed: [],
				contaminatedWith: [],
				next: 'returned'
			}
		});
	}
}

interface PastBatch {
	stock: string;
	by: string;
	endedAt: Date;
	celsius?: number;
	/** Its items wait to be looked over; else they went back to their shelves. */
	waits?: boolean;
}

async function batch(
	seed: Seed,
	chance: Chance,
	pieces: Piece[],
	{ stock, by, endedAt, celsius = 41.5, waits = false }: PastBatch
): Promise<void> {
	const before = (minutes: number) => new Date(endedAt.getTime() - minutes * MINUTE);
	const times = {
		startedAt: before(150),
		washedAt: before(140),
		dosedAt: before(132),
		rinsedAt: before(129),
		dryAt: before(122)
	};
	if (pieces.length === 0) return;
	const cards = await seed.tx
		.select({ id: itemModel.id, card: itemModel.card })
		.from(itemModel)
		.where(
			inArray(
				itemModel.id,
				pieces.map(({ modelId }) => modelId)
			)
		);
	const dosePpm = 53;
	const verdict = judgeBatch({
		items: pieces.map(({ tag, family, modelId }) => ({
			tag,
			family,
			card: cards.find(({ id }) => id === modelId)?.card ?? {},
			ownBath: null
		})),
		readings: [celsius],
		agent: 'chlorine',
		dosePpm,
		washedAt: times.washedAt.getTime(),
		dosedAt: times.dosedAt.getTime(),
		rinsedAt: times.rinsedAt.getTime(),
		rinsed: true,
		driedBy: 'air',
		cabinetC: null
	});
	const failed = verdict.outcome === 'fail';
	const decision = failed ? ('inspect discs' as const) : null;
	const id = chance.uuid();
	const [row] = await seed.tx
		.insert(washBatch)
		.values({
			id,
			...times,
			step: 'ended',
			startedBy: by,
			containerId: stock,
			agent: 'chlorine',
			volumeL: 14,
			stockMl: 18.5,
			dosePpm,
			contactMin: 2,
			rinsed: true,
			driedBy: 'air',
			endedAt,
			endedBy: by,
			outcome: verdict.outcome,
			reasons: verdict.reasons,
			decision
		})
		.returning({ number: washBatch.number });
	await seed.tx.insert(washReading).values({
		id: chance.uuid(),
		batchId: id,
		celsius,
		measured: true,
		takenBy: by,
		takenAt: times.washedAt
	});
	for (const piece of pieces) {
		await seed.tx
			.insert(washBatchItem)
			.values({ id: chance.uuid(), batchId: id, itemId: piece.id, addedAt: times.startedAt });
		await put(seed, piece, { where: 'wash', batchId: id, since: times.startedAt, by });
		await put(seed, piece, { where: 'drying', batchId: id, since: times.dryAt, by });
		if (waits) continue;
		const lookedAt = new Date(endedAt.getTime() + 20 * MINUTE);
		await seed.tx.insert(careLook).values({
			id: chance.uuid(),
			itemId: piece.id,
			batchId: id,
			looked: routeOf(piece.family).looks.map(({ text }) => text),
			good: true,
			lookedBy: by,
			lookedAt
		});
		await put(seed, piece, { where: 'shelf', placeId: piece.placeId, since: lookedAt, by });
	}
	seed.happen({
		action: 'batch.ended',
		by,
		at: endedAt,
		of: id,
		payload: {
			number: row?.number ?? 0,
			outcome: verdict.outcome,
			items: pieces.length,
			reasons: failed ? verdict.reasons.map(({ text }) => text) : [],
			...(decision ? { decision } : {})
		}
	});
}

/** Cylinders that wait to be filled, or are at a test house, are there in custody too. */
async function cylindersInStep(seed: Seed, now: Date): Promise<string[]> {
	const rows = await seed.tx
		.select({ location: cylinder.location, row: item })
		.from(cylinder)
		.innerJoin(item, eq(item.id, cylinder.itemId))
		.where(ne(cylinder.location, 'rack'));
	for (const { location, row } of rows)
		if (location !== 'rack')
			await put(seed, row, {
				where: location,
				since: new Date(now.getTime() - 5 * HOUR),
				by: seed.person('ilse')
			});
	return rows.map(({ row }) => row.id);
}
