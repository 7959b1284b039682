import { type AirSample, judgeAir } from '../../../core/air/breathing-air.ts';
import { cylinderContent } from '../../../core/air/content.ts';
import { plusDays, plusMonths } from '../../../core/plan/calendar.ts';
import { insertMany } from '../db/insert-many.ts';
import {
	airlineRig,
	airSource,
	airTest,
	cylinder,
	cylinderFill,
	cylinderTest,
	entryTeam,
	entryWearer,
	fillBatch,
	rigEvent
} from '../db/schema/index.ts';
import type { Chance } from '../../../core/stats/chance.ts';
import type { Seed } from './seeding.ts';

/** Where the air of the harbour comes from. Invented. Days since each was tested last. */
const SOURCES = [
	{
		key: 'room',
		name: 'Fill room compressor',
		kind: 'compressor',
		oil: true,
		fills: true,
		ago: 41
	},
	{ key: 'shed', name: 'Boat shed airline compressor', kind: 'compressor', oil: true, ago: 86 },
	{ key: 'quay', name: 'Grain quay trolley', kind: 'banks', oil: false, ago: 97 }
] as const;
const BANKS = { room: 3, shed: 0, quay: 2 } as const;
/** Quarterly tests on record for each source. */
const TESTS = 8;
const TEST_DAYS = 88;
/** Cylinders: so many wait to be filled, are at the test house, are nobody knows how full. */
const [EMPTIES, AWAY_AT, UNKNOWN_AT, PAST_AT] = [8, [50, 51], 55, 58];
/** Of the ones on the shelf, in sets come first. */
const IN_SETS = 12;
const FILL_DAYS = [3, 9, 17, 24, 33, 52, 71, 90, 120, 150, 200, 230];

/** People who go in with breathing apparatus, and what they take, L/min. Invented. */
const WEARERS = [
	['Runa Holt', 41],
	['Jory Pell', 55],
	['Sten Arvik', 47],
	['Ansa Brevik', 38],
	['Tam Oakes', 62],
	['Lio Varn', 44]
] as const;
const TASKS = [
	'Ice plant, ammonia valve',
	'Fish-meal pit, level gauge',
	'Tank 4, sludge',
	'Chlorine store, drill'
];
const ENTRIES = 22;

/** Air, cylinders, fills, entries and airlines of the last two years. */
export async function seedAir(seed: Seed, idOf: ReadonlyMap<string, string>): Promise<void> {
	const sources = await seedSources(seed);
	await seedCylinders(seed, idOf, sources.get('room') ?? '');
	await seedEntries(seed, idOf);
	await seedRigs(seed, idOf, sources);
}

const tenth = (chance: Chance, low: number, high: number) =>
	Number((low + chance.next() * (high - low)).toFixed(1));

async function seedSources(seed: Seed): Promise<Map<string, string>> {
	const ids = new Map<string, string>();
	for (const source of SOURCES) {
		const id = seed.chance.uuid();
		ids.set(source.key, id);
		await seed.tx.insert(airSource).values({
			id,
			name: source.name,
			kind: source.kind,
			oilLubricated: source.oil,
			fills: 'fills' in source,
			banks: Array.from({ length: BANKS[source.key] }, () => ({ waterVolumeL: 50, fullBar: 300 }))
		});
		for (let test = TESTS - 1; test >= 0; test--) {
			const takenAt = seed.moment(source.ago + test * TEST_DAYS);
			const sample: AirSample = {
				oxygenPercent: tenth(seed.chance, 20.7, 21),
				coPpm: tenth(seed.chance, 0.3, 1.6),
				co2Ppm: Math.round(tenth(seed.chance, 360, 440)),
				oilMgPerM3: tenth(seed.chance, 0.1, 0.2),
				odour: false,
				...(source.key === 'shed'
					? { sampledAt: 'airline', pressureBar: 6, lowestUseC: 5, waterMgPerM3: 480 }
					: {
							sampledAt: 'filling outlet' as const,
							pressureBar: 300,
							waterMgPerM3: tenth(seed.chance, 9, 19)
						})
			};
			const [en, gradeD] = [judgeAir('en-12021', sample), judgeAir('grade-d', sample)];
			await seed.tx.insert(airTest).values({
				id: seed.chance.uuid(),
				sourceId: id,
				takenAt,
				sample,
				en,
				gradeD,
				outcome: en.outcome,
				laboratory: 'Harbour laboratory',
				enteredBy: seed.person('odd'),
				enteredAt: takenAt
			});
		}
	}
	return ids;
}

async function seedCylinders(
	seed: Seed,
	idOf: ReadonlyMap<string, string>,
	sourceId: string
): Promise<void> {
	const { chance, today } = seed;
	const tags = [...idOf.keys()].filter((tag) => tag.startsWith('CY-')).sort();
	const by = seed.person('odd');
	const rows = tags.map((tag, i) => {
		const steel = i % 9 === 8;
		const years = chance.int(3, 8);
		const manufacturedOn = plusDays(today, -years * 365 - chance.int(0, 300));
		const empty = i >= IN_SETS && i < IN_SETS + EMPTIES;
		return {
			tag,
			i,
			itemId: idOf.get(tag) ?? '',
			manufacturedOn,
			waterVolumeL: steel ? 6 : 6.8,
			ratedBar: 300,
			maximumBar: steel ? 410 : 450,
			material: steel ? ('steel' as const) : ('composite' as const),
			thread: 'M18 × 1.5',
			emptyKg: steel ? tenth(chance, 7.6, 8.1) : tenth(chance, 3.8, 4.2),
			lifeEndsOn: steel ? null : plusMonths(manufacturedOn, 180),
			location: empty
				? ('filling' as const)
				: AWAY_AT.includes(i)
					? ('test house' as const)
					: ('rack' as const),
			pressureBar: i === UNKNOWN_AT ? null : empty ? chance.int(38, 62) : chance.int(284, 299),
			pressureAt: seed.moment(chance.int(1, 20))
		};
	});
	await insertMany(
		seed.tx,
		cylinder,
		rows.map(({ tag: _, i: __, ...row }) => row)
	);
	await insertMany(
		seed.tx,
		cylinderTest,
		rows.map((row) => ({
			id: chance.uuid(),
			itemId: row.itemId,
			passed: true,
			stamp: `HT ${chance.int(2, 9)}`,
			testedOn:
				row.i === PAST_AT
					? plusDays(plusMonths(today, -60), -9)
					: later(row.manufacturedOn, plusDays(today, -chance.int(60, 1500))),
			notedBy: by,
			notedAt: seed.moment(chance.int(30, 60))
		}))
	);
	await seedFills(
		seed,
		rows.filter((row) => row.location === 'rack' && row.pressureBar !== null),
		sourceId
	);
}

const later = (a: string, b: string) => (a > b ? a : b);

/** Fills of the last months, in batches under the test that was in force. */
async function seedFills(
	seed: Seed,
	full: readonly { itemId: string; pressureBar: number | null }[],
	sourceId: string
): Promise<void> {
	const tests = (await seed.tx.select().from(airTest))
		.filter((test) => test.sourceId === sourceId)
		.sort((a, b) => a.takenAt.getTime() - b.takenAt.getTime());
	const by = seed.person('ilse');
	const lastDay = new Map<string, number>();
	for (const [i, { itemId }] of full.entries())
		lastDay.set(itemId, FILL_DAYS[i % FILL_DAYS.length] ?? 3);
	for (const days of [...FILL_DAYS].reverse()) {
		const openedAt = seed.moment(days);
		const test = tests.findLast((one) => one.takenAt < openedAt);
		if (!test) continue;
		const batchId = seed.chance.uuid();
		const closedAt = new Date(openedAt.getTime() + 7_200_000);
		await seed.tx.insert(fillBatch).values({
			id: batchId,
			sourceId,
			airTestId: test.id,
			openedBy: by,
			openedAt,
			closedAt
		});
		const filled = full.filter((row) => lastDay.get(row.itemId) === days);
		await insertMany(
			seed.tx,
			cylinderFill,
			filled.map((row, i) => {
				const endC = tenth(seed.chance, 32, 41);
				const settledBar = row.pressureBar ?? 290;
				return {
					id: seed.chance.uuid(),
					batchId,
					itemId: row.itemId,
					startedBy: by,
					instrument: 'GREVAN,FILL-PANEL,SIMULATED,1',
					startBar: seed.chance.int(35, 90),
					startedAt: new Date(openedAt.getTime() + i * 900_000),
					endedAt: new Date(openedAt.getTime() + i * 900_000 + 600_000),
					endBar: settledBar + 22,
					endC,
					settledBar,
					outcome: 'full' as const
				};
			})
		);
	}
}

/** Entries that are over, so that the wearers have a consumption of their own. */
async function seedEntries(seed: Seed, idOf: ReadonlyMap<string, string>): Promise<void> {
	const { chance } = seed;
	for (let entry = 0; entry < ENTRIES; entry++) {
		const openedAt = seed.moment(6 + (ENTRIES - entry) * 17);
		const id = chance.uuid();
		const minutes = chance.int(14, 26);
		const closedAt = new Date(openedAt.getTime() + minutes * 60_000);
		await seed.tx.insert(entryTeam).values({
			id,
			task: chance.pick(TASKS),
			placeId: seed.places.get('tanks') ?? null,
			marginMin: 10,
			openedBy: seed.person('tove'),
			openedAt,
			closedAt,
			turnedAt: new Date(openedAt.getTime() + (minutes / 2) * 60_000)
		});
		const first = entry % WEARERS.length;
		for (const [i, offset] of [0, 1].entries()) {
			const [wearer, usual] = WEARERS[(first + offset) % WEARERS.length] ?? WEARERS[0];
			const startBar = chance.int(284, 299);
			const litres = usual * (0.85 + chance.next() * 0.35) * minutes;
			await seed.tx.insert(entryWearer).values({
				id: chance.uuid(),
				teamId: id,
				wearer,
				waterVolumeL: 6.8,
				startBar,
				setId: idOf.get(`BA-02${String(13 + ((entry + i) % 12)).padStart(2, '0')}`) ?? null,
				warningBar: 55,
				expectedLPerMin: 50,
				startedAt: openedAt,
				endedAt: closedAt,
				endBar: barLeft(startBar, litres)
			});
		}
	}
}

/** What the gauge shows after so many litres out of 6.8 L, to the bar. */
function barLeft(startBar: number, litres: number): number {
	for (let bar = startBar; bar > 0; bar--) {
		const { freeLitres } = cylinderContent({ waterVolumeL: 6.8, fromBar: startBar, toBar: bar });
		if (freeLitres >= litres) return bar;
	}
	return 0;
}

async function seedRigs(
	seed: Seed,
	idOf: ReadonlyMap<string, string>,
	sources: ReadonlyMap<string, string>
): Promise<void> {
	const by = seed.person('ilse');
	for (let i = 0; i < 6; i++) {
		const itemId = idOf.get(`AL-020${i + 1}`);
		if (!itemId) continue;
		const quay = i === 5;
		await seed.tx.insert(airlineRig).values({
			itemId,
			sourceId: sources.get(quay ? 'quay' : 'shed') ?? '',
			dryer: quay ? '' : 'Twin tower',
			sorbentMonths: quay ? null : 6,
			alarm: quay ? ('none' as const) : ('CO' as const),
			alarmPpm: quay ? null : 10,
			regulatorBar: 6,
			boreMm: i === 3 ? 8 : 13,
			lengthM: i === 3 ? 75 : 30 + 10 * i,
			fittingsM: 2,
			outlets: 2,
			leastBar: 4,
			wearing: i % 2 ? 'hood' : 'tight-fitting'
		});
		if (quay) continue;
		for (const [kind, ago] of [
			['sorbent', i === 1 ? 190 : 40 + 10 * i],
			['alarm', i === 2 ? 44 : 6 + i]
		] as const)
			await seed.tx.insert(rigEvent).values({
				id: seed.chance.uuid(),
				itemId,
				kind,
				doneOn: plusDays(seed.today, -ago),
				doneBy: by,
				notedAt: seed.moment(ago)
			});
	}
}
