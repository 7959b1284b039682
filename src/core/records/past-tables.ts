import { MATERIALS } from '../air/cylinder.ts';
import { FIT_METHODS } from '../people/fit-standing.ts';
import { EVENT_WHATS } from '../plan/events.ts';
import { RULE_WHATS } from '../plan/rules.ts';
import { USE_PATTERNS } from '../site/places.ts';
import {
	dayColumn,
	momentColumn,
	numberColumn,
	textColumn,
	wholeColumn,
	wordColumn,
	yesColumn
} from '../csv/columns.ts';
import type { Column } from '../csv/table.ts';

/** Records that come in as tables beside the registers: what was done elsewhere, before or on paper. */
export const PAST_KINDS = [
	'cylinders',
	'air-tests',
	'fills',
	'entries',
	'fit-tests',
	'faults',
	'rules'
] as const;
export type PastKind = (typeof PAST_KINDS)[number];

const NAME = { longest: 80, required: true };
const needed = { required: true };

/** A cylinder of the register with what is stamped on it, and its last test. */
export interface CylinderLine {
	tag: string;
	waterVolumeL: number | null;
	ratedBar: number | null;
	maximumBar: number | null;
	material: string | null;
	emptyKg: number | null;
	thread: string;
	manufacturedOn: string | null;
	lifeEndsOn: string | null;
	testYears: number | null;
	testedOn: string | null;
	stamp: string;
}

export interface AirTestLine {
	source: string;
	takenAt: string | null;
	laboratory: string;
	sampledAt: string | null;
	pressureBar: number | null;
	oxygenPercent: number | null;
	coPpm: number | null;
	co2Ppm: number | null;
	oilMgPerM3: number | null;
	waterMgPerM3: number | null;
	odour: boolean | null;
}

export interface FillLine {
	tag: string;
	source: string;
	startedAt: string | null;
	endedAt: string | null;
	startBar: number | null;
	endBar: number | null;
	endC: number | null;
	settledBar: number | null;
}

export interface EntryLine {
	task: string;
	place: string;
	wearer: string;
	set: string;
	startedAt: string | null;
	endedAt: string | null;
	startBar: number | null;
	endBar: number | null;
	waterVolumeL: number | null;
}

export interface FitTestLine {
	number: string;
	model: string;
	size: string;
	method: string | null;
	/** Key of the protocol or of the agent. */
	way: string;
	/** Of a quantitative test: the factor of each exercise that counts, in their order, apart by blanks. */
	factors: string;
	/** Of a qualitative one. */
	passed: boolean | null;
	worn: string;
	testedOn: string | null;
	tester: string;
}

export interface FaultLine {
	tag: string;
	station: string;
	code: string;
	note: string;
}

export interface RuleLine {
	what: string | null;
	detail: string;
	everyMonths: number | null;
	everyDays: number | null;
	everyUses: number | null;
	everyHours: number | null;
	everyCycles: number | null;
	after: string | null;
	window: number | null;
	families: string;
	model: string;
	use: string | null;
	place: string;
	replaces: string;
	reason: string;
}

/** One kind of table: its columns, an empty row, and a row that shows how it is filled in. */
interface PastTable<T extends object> {
	columns: readonly Column<T>[];
	empty: () => T;
	example: Partial<T>;
}

const bar = { least: 0, most: 450 };
const every = { least: 1, most: 100_000 };

export const PAST_TABLES: {
	cylinders: PastTable<CylinderLine>;
	'air-tests': PastTable<AirTestLine>;
	fills: PastTable<FillLine>;
	entries: PastTable<EntryLine>;
	'fit-tests': PastTable<FitTestLine>;
	faults: PastTable<FaultLine>;
	rules: PastTable<RuleLine>;
} = {
	cylinders: {
		columns: [
			textColumn('tag', 'tag', { longest: 20, required: true }),
			numberColumn('water volume L', 'waterVolumeL', { least: 0.1, most: 500, required: true }),
			wholeColumn('rated bar', 'ratedBar', { least: 20, most: 450, required: true }),
			wholeColumn('maximum bar', 'maximumBar', { least: 20, most: 700, required: true }),
			wordColumn('material', 'material', MATERIALS, needed),
			numberColumn('empty kg', 'emptyKg', { least: 0.1, most: 200 }),
			textColumn('thread', 'thread', { longest: 40 }),
			dayColumn('manufactured on', 'manufacturedOn', needed),
			dayColumn('life ends on', 'lifeEndsOn'),
			wholeColumn('test years', 'testYears', { least: 1, most: 20 }),
			dayColumn('tested on', 'testedOn'),
			textColumn('stamp', 'stamp', { longest: 80 })
		],
		empty: () => ({
			tag: '',
			waterVolumeL: null,
			ratedBar: null,
			maximumBar: null,
			material: null,
			emptyKg: null,
			thread: '',
			manufacturedOn: null,
			lifeEndsOn: null,
			testYears: null,
			testedOn: null,
			stamp: ''
		}),
		example: {
			tag: 'CY-0001',
			waterVolumeL: 6.8,
			ratedBar: 300,
			maximumBar: 379,
			material: 'composite',
			manufacturedOn: '2022-03-01',
			testedOn: '2025-03-01',
			stamp: 'Stamp of the test house'
		}
	},
	'air-tests': {
		columns: [
			textColumn('source', 'source', NAME),
			momentColumn('taken at', 'takenAt', needed),
			textColumn('laboratory', 'laboratory', NAME),
			wordColumn('sampled at', 'sampledAt', ['filling outlet', 'cylinder', 'airline'], needed),
			numberColumn('pressure bar', 'pressureBar', { ...bar, required: true }),
			numberColumn('oxygen percent', 'oxygenPercent', { least: 0, most: 100 }),
			numberColumn('CO ppm', 'coPpm', { least: 0, most: 100_000 }),
			numberColumn('CO2 ppm', 'co2Ppm', { least: 0, most: 1_000_000 }),
			numberColumn('oil mg per m3', 'oilMgPerM3', { least: 0, most: 1000 }),
			numberColumn('water mg per m3', 'waterMgPerM3', { least: 0, most: 100_000 }),
			yesColumn('odour', 'odour')
		],
		empty: () => ({
			source: '',
			takenAt: null,
			laboratory: '',
			sampledAt: null,
			pressureBar: null,
			oxygenPercent: null,
			coPpm: null,
			co2Ppm: null,
			oilMgPerM3: null,
			waterMgPerM3: null,
			odour: null
		}),
		example: {
			source: 'Name of the source here',
			takenAt: '2026-01-31T09:30',
			laboratory: 'Laboratory',
			sampledAt: 'filling outlet',
			pressureBar: 300,
			oxygenPercent: 20.9,
			coPpm: 1,
			co2Ppm: 380,
			oilMgPerM3: 0.1,
			waterMgPerM3: 20,
			odour: false
		}
	},
	fills: {
		columns: [
			textColumn('tag', 'tag', { longest: 20, required: true }),
			textColumn('source', 'source', NAME),
			momentColumn('started at', 'startedAt'),
			momentColumn('ended at', 'endedAt', needed),
			numberColumn('start bar', 'startBar', { ...bar, required: true }),
			numberColumn('end bar', 'endBar', { ...bar, required: true }),
			numberColumn('end °C', 'endC', { least: -40, most: 100 }),
			numberColumn('settled bar at 15 °C', 'settledBar', { ...bar, required: true })
		],
		empty: () => ({
			tag: '',
			source: '',
			startedAt: null,
			endedAt: null,
			startBar: null,
			endBar: null,
			endC: null,
			settledBar: null
		}),
		example: {
			tag: 'CY-0001',
			source: 'Name of the source here',
			endedAt: '2026-02-10T14:20',
			startBar: 60,
			endBar: 310,
			settledBar: 298
		}
	},
	entries: {
		columns: [
			textColumn('task', 'task', { longest: 200, required: true }),
			textColumn('place', 'place', { longest: 80 }),
			textColumn('wearer', 'wearer', NAME),
			textColumn('set', 'set', { longest: 20 }),
			momentColumn('started at', 'startedAt', needed),
			momentColumn('ended at', 'endedAt', needed),
			numberColumn('start bar', 'startBar', { ...bar, required: true }),
			numberColumn('end bar', 'endBar', { ...bar, required: true }),
			numberColumn('water volume L', 'waterVolumeL', { least: 0.1, most: 100, required: true })
		],
		empty: () => ({
			task: '',
			place: '',
			wearer: '',
			set: '',
			startedAt: null,
			endedAt: null,
			startBar: null,
			endBar: null,
			waterVolumeL: null
		}),
		example: {
			task: 'Tank 4, sludge',
			wearer: 'Example Person',
			set: 'BA-0001',
			startedAt: '2026-02-10T09:00',
			endedAt: '2026-02-10T09:24',
			startBar: 290,
			endBar: 90,
			waterVolumeL: 6.8
		}
	},
	'fit-tests': {
		columns: [
			textColumn('number', 'number', { longest: 20, required: true }),
			textColumn('model', 'model', NAME),
			textColumn('size', 'size', NAME),
			wordColumn('method', 'method', FIT_METHODS, needed),
			textColumn('way', 'way', NAME),
			textColumn('factors', 'factors', { longest: 200 }),
			yesColumn('passed', 'passed'),
			textColumn('worn', 'worn', { longest: 200 }),
			dayColumn('tested on', 'testedOn', needed),
			textColumn('tester', 'tester', { longest: 80 })
		],
		empty: () => ({
			number: '',
			model: '',
			size: '',
			method: null,
			way: '',
			factors: '',
			passed: null,
			worn: '',
			testedOn: null,
			tester: ''
		}),
		example: {
			number: '101',
			model: 'Name of the model here',
			size: 'M',
			method: 'qualitative',
			way: 'saccharin',
			passed: true,
			testedOn: '2026-01-31',
			tester: 'Example Person'
		}
	},
	faults: {
		columns: [
			textColumn('tag', 'tag', { longest: 20, required: true }),
			textColumn('station', 'station', NAME),
			textColumn('code', 'code', { longest: 20, required: true }),
			textColumn('note', 'note', { longest: 500 })
		],
		empty: () => ({ tag: '', station: '', code: '', note: '' }),
		example: { tag: 'HM-0001', station: 'exhalation', code: 'CURL', note: 'found on 31 January' }
	},
	rules: {
		columns: [
			wordColumn('what', 'what', RULE_WHATS, needed),
			textColumn('detail', 'detail', { longest: 60 }),
			wholeColumn('every months', 'everyMonths', every),
			wholeColumn('every days', 'everyDays', every),
			wholeColumn('every uses', 'everyUses', every),
			wholeColumn('every hours', 'everyHours', every),
			wholeColumn('every cycles', 'everyCycles', every),
			wordColumn('after', 'after', EVENT_WHATS),
			wholeColumn('window', 'window', { least: 0, most: 10_000, required: true }),
			textColumn('families', 'families', { longest: 400 }),
			textColumn('model', 'model', { longest: 80 }),
			wordColumn('use', 'use', USE_PATTERNS),
			textColumn('place', 'place', { longest: 80 }),
			textColumn('replaces', 'replaces', { longest: 60 }),
			textColumn('reason', 'reason', { longest: 300 })
		],
		empty: () => ({
			what: null,
			detail: '',
			everyMonths: null,
			everyDays: null,
			everyUses: null,
			everyHours: null,
			everyCycles: null,
			after: null,
			window: null,
			families: '',
			model: '',
			use: null,
			place: '',
			replaces: '',
			reason: ''
		}),
		example: {
			what: 'inspection',
			everyMonths: 1,
			window: 7,
			families: 'half-mask',
			reason: 'what is shared is looked at each month'
		}
	}
};
