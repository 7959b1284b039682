import { and, eq, isNull, lt } from 'drizzle-orm';
import { rejectCode } from '../../../core/data/reject-codes.ts';
import { repairFor } from '../../../core/data/repair-choice.ts';
import { plusDays } from '../../../core/plan/calendar.ts';
import { Chance } from '../../../core/stats/chance.ts';
import { clusterSigns } from '../../../core/teach/cluster.ts';
import { insertMany } from '../db/insert-many.ts';
import {
	defect,
	defectReport,
	partFitting,
	partLot,
	serviceJob,
	serviceJobDefect,
	servicePart,
	washBatch,
	washBatchItem,
	washReading
} from '../db/schema/index.ts';
import { clusterFacts, raiseAlarms } from '../teach/clusters.ts';
import { type Mask, type Seed, type WalkedRun } from './seeding.ts';

/** Where chance begins here, so that the rest of the demo stays as it is. */
const SEED = 1_965;
const DAY = 86_400_000;
/** A larger fleet has no more of these stories. */
const MASKS = 64;
/** The first of it have no past of this kind. */
const SPARED = 12;
/** Discs that sit in the masks, with how long ago they were fitted. The one of 130 days ago is softer than it should be. Invented. */
const DISC_LOTS = [
	{ lot: 'X-1904', fittedDays: 700, share: 0.35 },
	{ lot: 'X-2011', fittedDays: 480, share: 0.35 },
	{ lot: 'X-2106', fittedDays: 310, share: 0.3 },
	{ lot: 'X-2153', fittedDays: 130, share: 0, bad: true }
] as const;
/** Faults in a year of one mask that is like the others: what, where, how often. Invented. */
const USUAL = [
	['exhalation', 'CURL', 0.07],
	['inhalation-left', 'CURL', 0.04],
	['inhalation-right', 'CURL', 0.04],
	['harness', 'ELAS', 0.05],
	['facepiece', 'DIRTY', 0.03],
	['label', 'LABEL', 0.02]
] as const;
const SOFT_EACH = 5;
/** Of the soft ones, one after the other. */
const BAD_EACH_DAYS = 9;
/** Batches of the past, and the one whose discs were left in. */
const BATCHES = 16;
const BATCH_DAYS = 8;
const IN_BATCH = 8;
const LEFT_IN = { batch: 13, faults: 5 } as const;

interface Past {
	mask: Mask;
	station: string;
	code: string;
	daysAgo: number;
	note: string | null;
}

/** A year of faults that were mended, lots in masks, batches behind them, and what the record says of it. */
export async function seedFaults(seed: Seed): Promise<void> {
	const chance = new Chance(SEED);
	const lots = await seedLots(seed, chance);
	const masks = seed.masks.slice(SPARED, MASKS);
	const soft = lots.find(({ bad }) => bad);
	// Every fifth mask got the soft ones.
	const fitted = masks.map((mask, i) => ({
		mask,
		lot: (i % SOFT_EACH === 3 && soft) || pickLot(lots, chance)
	}));
	await insertMany(
		seed.tx,
		partFitting,
		fitted.map(({ mask, lot }) => ({
			id: chance.uuid(),
			itemId: mask.id,
			station: 'exhalation',
			part: 'disc-exhalation',
			lotId: lot.id,
			quantity: 1,
			fittedAt: new Date(seed.now.getTime() - lot.fittedDays * DAY)
		}))
	);
	const past: Past[] = [
		...usualFaults(masks, chance),
		...softDiscs(fitted.filter(({ lot }) => lot.bad).map(({ mask }) => mask)),
		...(await seedBatches(seed, chance, masks))
	]
		// Before the last inspection of each, which stands as it does.
		.map((one) => ({ ...one, daysAgo: Math.max(one.daysAgo, one.mask.age + 3) }))
		.sort((a, b) => b.daysAgo - a.daysAgo);
	const replacement = lots.find(({ lot }) => lot === 'X-2106');
	for (const one of past)
		await seed.walked([await mended(seed, chance, one, replacement?.id ?? '')]);
	const facts = await clusterFacts(seed.tx, seed.now);
	await raiseAlarms(
		{
			tx: seed.tx,
			now: seed.now,
			record: (action, { of, payload }) =>
				seed.happen({ action, of, payload, at: seed.now, by: seed.person('ilse') } as never)
		},
		clusterSigns(facts).filter(({ alarmAt }) => alarmAt !== null)
	);
}

type Lot = (typeof DISC_LOTS)[number] & { id: string; bad?: boolean };

async function seedLots(seed: Seed, chance: Chance): Promise<Lot[]> {
	const lots = DISC_LOTS.map((row) => ({ ...row, id: chance.uuid() }));
	await seed.tx.insert(partLot).values(
		lots.map(({ id, lot }) => ({
			id,
			part: 'disc-exhalation',
			lot,
			quantity: lot === 'X-2153' ? 6 : 0,
			useBy: plusDays(seed.today, 400),
			location: 'Drawer 1'
		}))
	);
	return lots;
}

function pickLot(lots: readonly Lot[], chance: Chance): Lot {
	let at = chance.next();
	return lots.find(({ share }) => (at -= share) < 0) ?? chance.pick(lots);
}

function usualFaults(masks: readonly Mask[], chance: Chance): Past[] {
	return masks.flatMap((mask) =>
		USUAL.flatMap(([station, code, perYear]) =>
			chance.next() < perYear
				? [{ mask, station, code, daysAgo: chance.int(20, 360), note: null }]
				: []
		)
	);
}

const softDiscs = (masks: readonly Mask[]): Past[] =>
	masks.slice(0, 11).map((mask, i) => ({
		mask,
		station: 'exhalation',
		code: 'CURL',
		daysAgo: 110 - BAD_EACH_DAYS * i,
		note: 'Disc soft, does not fall back.'
	}));

/** Batches of the past; one was dried with its discs left in. @returns the faults that came of it */
async function seedBatches(seed: Seed, chance: Chance, masks: readonly Mask[]): Promise<Past[]> {
	const by = seed.person('odd');
	const faults: Past[] = [];
	for (let nth = 0; nth < BATCHES; nth++) {
		const daysAgo = (BATCHES - nth) * BATCH_DAYS;
		const endedAt = seed.moment(daysAgo);
		const before = (minutes: number) => new Date(endedAt.getTime() - minutes * 60_000);
		const id = chance.uuid();
		// Of the batch that did harm, masks that were inspected since.
		const may = nth === LEFT_IN.batch ? masks.filter(({ age }) => age < 18) : masks;
		const first = chance.int(0, Math.max(0, may.length - IN_BATCH));
		const inIt = may.slice(first, first + IN_BATCH);
		const [row] = await seed.tx
			.insert(washBatch)
			.values({
				id,
				step: 'ended',
				startedBy: by,
				startedAt: before(150),
				washedAt: before(140),
				dosedAt: before(132),
				rinsedAt: before(129),
				dryAt: before(122),
				agent: 'iodine',
				volumeL: 14,
				stockMl: 11.2,
				dosePpm: 50,
				contactMin: 2,
				rinsed: true,
				driedBy: 'air',
				endedAt,
				endedBy: by,
				outcome: 'pass',
				reasons: []
			})
			.returning({ number: washBatch.number });
		await seed.tx.insert(washReading).values({
			id: chance.uuid(),
			batchId: id,
			celsius: 41,
			measured: true,
			takenBy: by,
			takenAt: before(140)
		});
		await seed.tx.insert(washBatchItem).values(
			inIt.map((mask) => ({
				id: chance.uuid(),
				batchId: id,
				itemId: mask.id,
				addedAt: before(150)
			}))
		);
		seed.happen({
			action: 'batch.ended',
			by,
			at: endedAt,
			of: id,
			payload: { number: row?.number ?? 0, outcome: 'pass', items: inIt.length, reasons: [] }
		});
		if (nth === LEFT_IN.batch)
			for (const mask of inIt.slice(0, LEFT_IN.faults))
				faults.push({
					mask,
					station: 'inhalation-left',
					code: 'CURL',
					daysAgo: daysAgo - 2,
					note: 'Disc dried crumpled: left in for the wash.'
				});
	}
	return faults;
}

/** A fault of the past with the repair that ended it. */
async function mended(
	seed: Seed,
	chance: Chance,
	{ mask, station, code, daysAgo, note }: Past,
	lotId: string
): Promise<WalkedRun> {
	const { tx } = seed;
	const [id, jobId] = [chance.uuid(), chance.uuid()];
	const [by, release] = [seed.person('odd'), seed.person('tove')];
	const reportedAt = seed.moment(daysAgo);
	const doneAt = new Date(reportedAt.getTime() + chance.int(3, 30) * 3_600_000);
	const releasedAt = new Date(doneAt.getTime() + chance.int(1, 20) * 3_600_000);
	const { severity } = rejectCode(code);
	const repair = repairFor(code, station, 'half-mask');
	const disc = repair.key === 'replace-disc' && station === 'exhalation';
	await tx.insert(defect).values({
		id,
		itemId: mask.id,
		station,
		code,
		severity,
		note,
		reportedBy: by,
		reportedAt,
		closedAt: releasedAt,
		closedHow: 'released'
	});
	await tx.insert(defectReport).values({ id, defectId: id, reportedBy: by, reportedAt, note });
	await tx.insert(serviceJob).values({
		id: jobId,
		itemId: mask.id,
		repair: repair.key,
		startedBy: by,
		startedAt: new Date(doneAt.getTime() - 20 * 60_000),
		proof: repair.proof.map(() => true),
		doneBy: by,
		doneAt,
		releasedBy: release,
		releasedAt,
		minutes: chance.int(6, 22),
		version: 3
	});
	await tx.insert(serviceJobDefect).values({ jobId, defectId: id });
	if (disc) {
		await tx.insert(servicePart).values({ jobId, lotId, quantity: 1 });
		const ended = await tx
			.update(partFitting)
			.set({ removedAt: doneAt, removedHow: 'failed' })
			.where(
				and(
					eq(partFitting.itemId, mask.id),
					eq(partFitting.station, station),
					lt(partFitting.fittedAt, doneAt),
					isNull(partFitting.removedAt)
				)
			)
			.returning({ id: partFitting.id });
		// What was put in before the disc of today left with the one before that.
		if (ended.length)
			await tx.insert(partFitting).values({
				id: chance.uuid(),
				itemId: mask.id,
				station,
				part: 'disc-exhalation',
				lotId,
				quantity: 1,
				fittedAt: doneAt,
				jobId
			});
	}
	const about = { itemId: mask.id };
	seed.happen({
		...about,
		at: reportedAt,
		by,
		action: 'defect.opened',
		of: id,
		payload: { station, code, severity, note }
	});
	seed.happen({
		...about,
		at: releasedAt,
		by: release,
		action: 'repair.released',
		of: jobId,
		payload: { repair: repair.key, defects: [code] }
	});
	return {
		mask,
		id: chance.uuid(),
		by,
		at: new Date(doneAt.getTime() + 60_000),
		answers: seed
			.answers()
			.map((answer) => ({ ...answer, value: 'good' as const, code: undefined })),
		serviceJobId: jobId
	};
}
