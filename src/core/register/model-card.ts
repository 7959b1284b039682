import { WHISTLE_BAND_BAR } from '../bench/breathing-apparatus.ts';
import { airwayOf } from '../data/families.ts';
import { checkDial, type GaugeDial } from '../dial/model.ts';
import { recordOf, type FamilyRecord } from '../data/family-records.ts';
import { MOST_FILTER_MASS_G } from '../filters/stock.ts';
import type { ReadingFacts } from '../inspection/reading.ts';
import { InputError } from '../verdict.ts';

/** What something may be disinfected with. Published: 29 CFR 1910.134 app. B-2 for the first two; from memory. */
export const AGENTS = [
	'chlorine',
	'iodine',
	'quaternary ammonium',
	'wipes without bleach'
] as const;
export type Agent = (typeof AGENTS)[number];

/** What the maker of a model says in figures and in words to choose from; what is left out is not known. */
export interface ModelCard {
	/** Most that all filters on it may weigh together, g. */
	filterMassG?: number;
	/** A loss of just the limit of the hold fails: the maker says “less than”. */
	holdBelow?: boolean;
	/** Band in which its whistle starts, bar. */
	whistleFromBar?: number;
	whistleToBar?: number;
	/** Band of its medium pressure, bar. */
	mediumFromBar?: number;
	mediumToBar?: number;
	/** Its gauge: figure and angle of the first and of the last mark, bar from mark to mark (core/dial/model.ts). */
	dialFromBar?: number;
	dialFromDeg?: number;
	dialToBar?: number;
	dialToDeg?: number;
	dialSmallBar?: number;
	dialLargeBar?: number;
	/** What its blower moves through the filters, L/min. */
	blowerLPerMin?: number;
	/** Its weight without cylinders and air, kg. */
	weightKg?: number;
	washMaxC?: number;
	cabinetMaxC?: number;
	agents?: Agent[];
	/** Stations that must not be wetted. */
	keepDry?: string[];
}

/** What stands at a station of which its maker says so. */
export const NEVER_WETTED = 'Never wetted: wiped only.';

/** The figures of a card. */
export type CardNumber = {
	[K in keyof ModelCard]-?: ModelCard[K] extends number | undefined ? K : never;
}[keyof ModelCard];

interface CardField {
	key: CardNumber;
	label: string;
	unit: string;
	least: number;
	most: number;
	hint?: string;
	/** Whether a family has such a thing. */
	of: (record: FamilyRecord) => boolean;
}

const isSet = (record: FamilyRecord) => record.neverWithout.includes('cylinder');

/** The figures that a card may hold, in the order in which they are asked. Ranges: common practice, wide enough for every maker. */
export const CARD_NUMBERS: readonly CardField[] = [
	{
		key: 'filterMassG',
		label: 'Most that its filters weigh together',
		unit: 'g',
		least: 20,
		most: 1500,
		hint: 'Where the maker is stricter than the standard.',
		of: (record) => record.carries !== null
	},
	{
		key: 'whistleFromBar',
		label: 'Whistle not below',
		unit: 'bar',
		least: WHISTLE_BAND_BAR.from,
		most: WHISTLE_BAND_BAR.to,
		of: isSet
	},
	{
		key: 'whistleToBar',
		label: 'Whistle not above',
		unit: 'bar',
		least: WHISTLE_BAND_BAR.from,
		most: WHISTLE_BAND_BAR.to,
		of: isSet
	},
	{
		key: 'mediumFromBar',
		label: 'Medium pressure from',
		unit: 'bar',
		least: 1,
		most: 20,
		of: isSet
	},
	{ key: 'mediumToBar', label: 'Medium pressure to', unit: 'bar', least: 1, most: 20, of: isSet },
	{ key: 'dialFromBar', label: 'First mark', unit: 'bar', least: 0, most: 100, of: isSet },
	{
		key: 'dialFromDeg',
		label: 'First mark at',
		unit: '°',
		least: -180,
		most: 180,
		hint: 'Clockwise from the top, left of it below 0.',
		of: isSet
	},
	{ key: 'dialToBar', label: 'Last mark', unit: 'bar', least: 10, most: 500, of: isSet },
	{ key: 'dialToDeg', label: 'Last mark at', unit: '°', least: -180, most: 180, of: isSet },
	{ key: 'dialSmallBar', label: 'From mark to mark', unit: 'bar', least: 1, most: 50, of: isSet },
	{
		key: 'dialLargeBar',
		label: 'From large mark to large mark',
		unit: 'bar',
		least: 5,
		most: 200,
		of: isSet
	},
	{
		key: 'blowerLPerMin',
		label: 'Flow of its blower',
		unit: 'L/min',
		least: 60,
		most: 600,
		hint: 'Filters last by it. Empty: the usual flow of the kind.',
		of: (record) => record.carries === 'blower'
	},
	{
		key: 'weightKg',
		label: 'Weight without cylinder',
		unit: 'kg',
		least: 0.05,
		most: 25,
		of: (record) => record.air === null
	},
	{
		key: 'washMaxC',
		label: 'Wash at most',
		unit: '°C',
		least: 20,
		most: 65,
		of: (record) => record.washed
	},
	{
		key: 'cabinetMaxC',
		label: 'Drying cabinet at most',
		unit: '°C',
		least: 20,
		most: 90,
		of: (record) => record.washed
	}
];

/** The figures that a family has. */
export const cardNumbersOf = (family: string): CardField[] =>
	CARD_NUMBERS.filter(({ of }) => of(recordOf(family)));

/** Whether a hold is done on a family, so that its limit is of its model. */
export const hasHold = (family: string): boolean => isSet(recordOf(family));

/** Pairs of figures of which the first lies below the second. */
const BANDS = [
	['whistleFromBar', 'whistleToBar'],
	['mediumFromBar', 'mediumToBar']
] as const;

/**
 * A card as it is kept: only what the family has.
 * @throws InputError at the field that cannot be
 */
export function checkCard(card: ModelCard, family: string): ModelCard {
	const kept: ModelCard = {};
	for (const { key, label, unit, least, most } of cardNumbersOf(family)) {
		const value = card[key];
		if (value === undefined) continue;
		if (!(value >= least && value <= most))
			throw new InputError(key, `${label}: from ${least} to ${most} ${unit}, or empty.`);
		kept[key] = value;
	}
	for (const [from, to] of BANDS) {
		const [low, high] = [kept[from], kept[to]];
		if ((low === undefined) !== (high === undefined))
			throw new InputError(low === undefined ? from : to, 'A band has both ends, or neither.');
		if (low !== undefined && high !== undefined && low >= high)
			throw new InputError(to, 'The upper end of a band lies above the lower one.');
	}
	dialOf(kept);
	const carrier = recordOf(family).carries;
	if (kept.filterMassG !== undefined && carrier !== null && carrier in MOST_FILTER_MASS_G) {
		const most = MOST_FILTER_MASS_G[carrier as keyof typeof MOST_FILTER_MASS_G];
		if (kept.filterMassG > most)
			throw new InputError(
				'filterMassG',
				`The standard allows ${most} g on a ${carrier}; a maker may be stricter only.`
			);
	}
	if (card.holdBelow && hasHold(family)) kept.holdBelow = true;
	const agents = AGENTS.filter((agent) => card.agents?.includes(agent));
	if (agents.length) kept.agents = agents;
	const stations = airwayOf(family).stations.map(({ key }) => key);
	const stray = card.keepDry?.find((key) => !stations.includes(key));
	if (stray) throw new InputError('keepDry', 'There is no such station on this airway.');
	if (card.keepDry?.length) kept.keepDry = stations.filter((key) => card.keepDry?.includes(key));
	return kept;
}

/**
 * The gauge of a model; null where nothing is written of it.
 * @throws InputError where a part of it is missing or cannot be
 */
export function dialOf(card: ModelCard): GaugeDial | null {
	const keys = CARD_NUMBERS.map(({ key }) => key).filter((key) => key.startsWith('dial'));
	const missing = keys.find((key) => card[key] === undefined);
	if (keys.every((key) => card[key] === undefined)) return null;
	if (missing) throw new InputError(missing, 'A gauge is read with all six figures, or none.');
	const figure = (key: CardNumber) => card[key] ?? 0;
	return checkDial({
		from: { bar: figure('dialFromBar'), deg: figure('dialFromDeg') },
		to: { bar: figure('dialToBar'), deg: figure('dialToDeg') },
		smallBar: figure('dialSmallBar'),
		largeBar: figure('dialLargeBar')
	});
}

/** What of a model a reading is judged against. */
export function readingLimits(model: {
	ratedBar: number | null;
	holdDropBar: number | null;
	card: ModelCard;
}): ReadingFacts {
	const { card, ratedBar, holdDropBar } = model;
	const band = (from?: number, to?: number) =>
		from === undefined || to === undefined ? null : { from, to };
	return {
		ratedBar,
		holdDropBar,
		holdBelow: card.holdBelow ?? false,
		whistle: band(card.whistleFromBar, card.whistleToBar),
		medium: band(card.mediumFromBar, card.mediumToBar)
	};
}
