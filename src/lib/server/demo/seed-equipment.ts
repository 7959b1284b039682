import type { ModelCard } from '../../../core/register/model-card.ts';
import { inArray } from 'drizzle-orm';
import { recordOf } from '../../../core/data/family-records.ts';
import { proceduresOf } from '../../../core/data/procedures.ts';
import type { Step } from '../../../core/inspection/procedure.ts';
import { judgeReading, type Readings } from '../../../core/inspection/reading.ts';
import type { AnswerEvent } from '../../../core/inspection/run.ts';
import { plusDays } from '../../../core/plan/calendar.ts';
import { insertMany } from '../db/insert-many.ts';
import { item, itemModel } from '../db/schema/index.ts';
import { PLACES } from './scenario.ts';
import { seedAir } from './seed-air.ts';
import { seedBench } from './seed-bench.ts';
import type { Seed } from './seeding.ts';
import { writeSigned } from './signed-runs.ts';

/** Equipment beyond the half masks. Makers, models and tags are invented. */
const FLEET = [
	['full-face', 'FF', 'Tesselow', 'Tesselow F3', 'quarter turn', ['S', 'M', 'L'], 44, null],
	['ba-set', 'BA', 'Brannick', 'Brannick Long Reach', 'none', ['one size'], 28, 300],
	['powered-blower', 'PB', 'Tesselow', 'Tesselow Breeze', 'blower', ['one size'], 14, null],
	['airline', 'AL', 'Brannick', 'Brannick Line 4', 'none', ['one size'], 6, null],
	['gas-tight-suit', 'GS', 'Corrivane', 'Corrivane T1', 'none', ['M', 'L', 'XL'], 10, null],
	['ventilated-suit', 'VS', 'Corrivane', 'Corrivane Ventil', 'none', ['M', 'L'], 6, null],
	['escape-set', 'ES', 'Brannick', 'Brannick Way Out', 'none', ['one size'], 36, 200],
	['cylinder', 'CY', 'Corrivane', 'Corrivane 6.8', 'none', ['6.8 L'], 64, 300],
	['canister-mask', 'CM', 'Tesselow', 'Tesselow Harbour', 'thread', ['M', 'L'], 6, null]
] as const;

/** Monthly inspections on record; more for sets, whose readings are followed. */
const ROUNDS = 3;
const SET_ROUNDS = 8;
/** Sets that are put together from a mask and a cylinder with tags of their own; the rest wait for theirs. */
const ASSEMBLED = 19;
/** The last of them took theirs from further back on the shelf. */
const FIRST_SHELF = 12;
const FURTHER_BACK = { mask: 24, cylinder: 28 };
/** What most masks and suits are washed with. */
const WASHED: ModelCard = { washMaxC: 43, agents: ['chlorine', 'quaternary ammonium'] };
/** What makers say beyond the standard. */
const MAKER_SAYS: Record<string, Partial<typeof itemModel.$inferInsert>> = {
	'full-face': {
		donning: {
			straps: [
				'All straps at full length; hair out of the seal.',
				'Chin in, harness over the head, pull it down at the back.',
				'Temple pair first, both ends together, straight back.',
				'Then the brow strap, the neck pair last; none of them hard.'
			],
			inlet: 'round-pads',
			holdSeconds: 8
		},
		card: { ...WASHED, weightKg: 0.68, washMaxC: 49, cabinetMaxC: 60 }
	},
	'powered-blower': {
		card: {
			blowerLPerMin: 160,
			weightKg: 1.35,
			keepDry: ['filter', 'blower', 'battery', 'alarm'],
			agents: ['wipes without bleach']
		}
	},
	'canister-mask': { card: WASHED },
	'gas-tight-suit': { card: { ...WASHED, weightKg: 6.1 } },
	'ba-set': {
		holdDropBar: 8,
		card: {
			holdBelow: true,
			whistleFromBar: 50,
			whistleToBar: 60,
			mediumFromBar: 6.5,
			mediumToBar: 9,
			dialFromBar: 0,
			dialFromDeg: -135,
			dialToBar: 350,
			dialToDeg: 135,
			dialSmallBar: 10,
			dialLargeBar: 50,
			weightKg: 5.1,
			keepDry: ['reducer', 'gauge', 'whistle', 'demand', 'distress'],
			agents: ['wipes without bleach']
		},
		makerLines: [
			{ station: 'reducer', text: 'Quick coupling: push until it has clicked twice.' },
			{ station: 'mask', text: 'Chin cup first; the neck straps are never the last.' }
		]
	}
};
const STEP_MS = 30_000;
/** A set whose whistle sounds lower month by month. */
const DRIFTING_TAG = 'BA-0207';

interface Piece {
	id: string;
	tag: string;
	family: string;
	ratedBar: number | null;
	age: number;
	/** It is a part of a set: its filters are off. */
	inSet?: boolean;
}

/** Items of every other family with a few months of inspections. @returns their ids */
export async function seedEquipment(seed: Seed): Promise<string[]> {
	const pieces: Piece[] = [];
	const rows: (typeof item.$inferInsert)[] = [];
	for (const [family, prefix, maker, name, mount, sizes, count, ratedBar] of FLEET) {
		const modelId = seed.chance.uuid();
		await seed.tx
			.insert(itemModel)
			.values({ id: modelId, family, maker, name, mount, ratedBar, ...MAKER_SAYS[family] });
		for (let i = 0; i < count; i++) {
			const id = seed.chance.uuid();
			const tag = `${prefix}-${String(201 + i).padStart(4, '0')}`;
			const where = PLACES[i % PLACES.length] ?? PLACES[0];
			const roll = seed.chance.next();
			const age = roll < 0.86 ? seed.chance.int(1, 20) : seed.chance.int(24, 33);
			pieces.push({ id, tag, family, ratedBar, age });
			rows.push({
				id,
				tag,
				family,
				modelId,
				size: seed.chance.pick(sizes),
				serial: `${prefix}${seed.chance.int(10_000, 99_999)}`,
				placeId: seed.places.get(where.key) ?? '',
				inUseSince: plusDays(seed.today, -seed.chance.int(200, 1600))
			});
		}
	}
	await insertMany(seed.tx, item, rows);
	await assemble(seed, pieces);
	for (let round = SET_ROUNDS - 1; round >= 0; round--)
		await inspectAll(
			seed,
			pieces.filter((p) => p.family === 'ba-set' || round < ROUNDS),
			round
		);
	const idOf = new Map(pieces.map((piece) => [piece.tag, piece.id]));
	await seedBench(seed, idOf);
	await seedAir(seed, idOf);
	return pieces.map((piece) => piece.id);
}

/** Puts a mask and a cylinder on each of the first sets. */
async function assemble(seed: Seed, pieces: readonly Piece[]): Promise<void> {
	const of = (family: string) => pieces.filter((p) => p.family === family);
	const [masks, cylinders] = [of('full-face'), of('cylinder')];
	for (const [i, set] of of('ba-set').slice(0, ASSEMBLED).entries()) {
		const back = i < FIRST_SHELF ? { mask: 0, cylinder: 0 } : FURTHER_BACK;
		const parts = [masks[i + back.mask]?.id ?? '', cylinders[i + back.cylinder]?.id ?? ''];
		await seed.tx.update(item).set({ setId: set.id }).where(inArray(item.id, parts));
		for (const piece of pieces) if (parts.includes(piece.id)) piece.inSet = true;
	}
}

async function inspectAll(seed: Seed, pieces: readonly Piece[], round: number): Promise<void> {
	const runs = pieces.flatMap((piece) => {
		const [procedure] = proceduresOf(piece.family);
		if (!procedure) return [];
		return [
			{
				itemId: piece.id,
				ratedBar: piece.ratedBar,
				procedure,
				stepMs: STEP_MS,
				id: seed.chance.uuid(),
				by: seed.person(seed.chance.pick(['ilse', 'odd'])),
				at: seed.moment(piece.age + round * 30),
				answers: procedure.steps.map((step) => answerOf(seed, piece, step, round))
			}
		];
	});
	await writeSigned(seed, [runs]);
}

/** The step at which a filter goes back onto its mount. */
const backOn = (step: Step): boolean => step.key.startsWith('refit');

function answerOf(seed: Seed, piece: Piece, step: Step, round: number): AnswerEvent {
	const { carries, filterStations } = recordOf(piece.family);
	const filters = carries !== null && (filterStations.includes(step.station) || backOn(step));
	if (filters) return { step: step.key, value: piece.inSet ? 'not fitted' : 'good' };
	if (step.ifFitted && seed.chance.next() < 0.7) return { step: step.key, value: 'not fitted' };
	if (!step.reading) return { step: step.key, value: 'good' };
	const tenth = (value: number) => Math.round(value);
	const readings: Readings =
		step.reading.kind === 'hold'
			? { start: 294, end: 294 - seed.chance.int(0, 6), seconds: 61 }
			: step.reading.kind === 'whistle'
				? { value: piece.tag === DRIFTING_TAG ? 51 + round : tenth(53 + seed.chance.next() * 4) }
				: { value: tenth((piece.ratedBar ?? 300) * (0.93 + seed.chance.next() * 0.06)) };
	const judged = judgeReading(step, readings, { ratedBar: piece.ratedBar });
	return { step: step.key, value: judged.value, code: judged.code, readings };
}
