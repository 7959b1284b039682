import { type CellWays, readNumber, type Column } from '../csv/table.ts';
import {
	CONTAMINANT_FORMS,
	EN_GAS_TYPES,
	HARMS,
	TARGET_ORGANS,
	US_GAS_TYPES,
	type ExposureLimit,
	type RuleSet,
	type Substance
} from '../data/substance.ts';
import { CONCENTRATION_UNITS, type ConcentrationUnit } from '../units/concentration.ts';
import { casHolds, limitUnitOf } from './record.ts';

/** A substance as a row of a table gives it, before it is made whole. */
export type SubstanceDraft = Omit<Substance, 'key'> & {
	/** Unit of all limits of the row; it stands before them in the table. */
	unit?: ConcentrationUnit;
};

/** The draft as a substance, before it is made whole. */
export const withoutUnit = ({ unit: _, ...substance }: SubstanceDraft): Omit<Substance, 'key'> =>
	substance;

export const emptyDraft = (): SubstanceDraft => ({
	name: '',
	synonyms: [],
	form: 'vapour',
	organic: false,
	limits: {},
	warning: 'none',
	skin: false
});

type NumberKey =
	| 'molarMassGPerMol'
	| 'boilingPointC'
	| 'vapourPressureMmHg'
	| 'liquidDensityGPerCm3'
	| 'refractiveIndex'
	| 'lelPercent'
	| 'odourThresholdPpm'
	| 'skinHarmPpm';

const number = (name: string, key: NumberKey, positive = true): Column<SubstanceDraft> => ({
	name,
	read(cell, into, table) {
		const value = readNumber(cell, table);
		if (positive && !(value > 0)) throw new RangeError(`${value} must be above zero.`);
		into[key] = value;
	},
	write: (s) => s[key]
});

function oneOf<T extends string>(cell: string, words: readonly T[]): T {
	const found = words.find((word) => word.toLowerCase() === cell.toLowerCase());
	if (!found) throw new RangeError(`“${cell}” is none of: ${words.join(', ')}.`);
	return found;
}

const yes = (cell: string) => oneOf(cell, ['yes', 'no']) === 'yes';

/** An amount above zero; one in another unit than its row's carries it: 0.02 mg/m3. */
function readAmount(cell: string, s: SubstanceDraft, table: CellWays) {
	const match = /^(.*?)\s*(ppm|mg\/m[3³]|f\/cm[3³])$/.exec(cell);
	const value = readNumber(match?.[1] ?? cell, table);
	if (!(value > 0)) throw new RangeError('It must be above zero.');
	return {
		value,
		unit: match?.[2] ? oneOf(match[2].replace('³', '3'), CONCENTRATION_UNITS) : limitUnitOf(s)
	};
}

const withUnit = (value: number, unit: ConcentrationUnit | undefined, s: SubstanceDraft) =>
	unit === undefined || unit === limitUnitOf(s) ? value : `${value} ${unit}`;

type LimitKey = RuleSet | 'rel';
const limitIn = (s: SubstanceDraft, list: LimitKey): ExposureLimit =>
	(list === 'rel' ? s.rel : s.limits[list]) ?? { unit: limitUnitOf(s) };

function limit(list: LimitKey, part: 'twa' | 'short', name: string): Column<SubstanceDraft> {
	return {
		name,
		read(cell, into, table) {
			const ceiling = /^c/i.test(cell);
			const { value, unit } = readAmount(ceiling ? cell.slice(1) : cell, into, table);
			const changed: ExposureLimit = {
				...limitIn(into, list),
				unit,
				[part]: value,
				...(part === 'short'
					? { shortKind: ceiling ? ('ceiling' as const) : ('STEL' as const) }
					: {})
			};
			if (list === 'rel') into.rel = changed;
			else into.limits[list] = changed;
		},
		write(s) {
			const held = list === 'rel' ? s.rel : s.limits[list];
			const value = held?.[part];
			if (value === undefined) return undefined;
			const written = withUnit(value, held?.unit, s);
			return part === 'short' && held?.shortKind === 'ceiling' ? `c${written}` : written;
		}
	};
}

/** The columns of a table of substances, in and out. */
export const SUBSTANCE_COLUMNS: readonly Column<SubstanceDraft>[] = [
	{
		name: 'name',
		also: ['substance'],
		required: true,
		read: (cell, into) => void (into.name = cell.slice(0, 120)),
		write: (s) => s.name
	},
	{
		name: 'synonyms',
		read: (cell, into) =>
			void (into.synonyms = cell
				.split(/[;|]/)
				.map((word) => word.trim())
				.filter(Boolean)),
		write: (s) => s.synonyms.join('; ')
	},
	{
		name: 'CAS',
		also: ['cas number'],
		read(cell, into) {
			if (!casHolds(cell))
				throw new RangeError(`“${cell}” is no CAS number: its check digit does not fit.`);
			into.cas = cell;
		},
		write: (s) => s.cas
	},
	{ name: 'formula', read: (cell, into) => void (into.formula = cell), write: (s) => s.formula },
	{
		name: 'form',
		required: true,
		read: (cell, into) => void (into.form = oneOf(cell, CONTAMINANT_FORMS)),
		write: (s) => s.form
	},
	{
		name: 'organic',
		read: (cell, into) => void (into.organic = yes(cell)),
		write: (s) => (s.organic ? 'yes' : 'no')
	},
	number('molar mass g/mol', 'molarMassGPerMol'),
	number('boiling point C', 'boilingPointC', false),
	number('vapour pressure mmHg', 'vapourPressureMmHg'),
	{
		name: 'antoine',
		read(cell, into, table) {
			const parts = cell.split(/[\s;]+/).map((part) => readNumber(part, table));
			const [a, b, c] = parts;
			if (parts.length !== 3 || a === undefined || b === undefined || c === undefined)
				throw new RangeError(`“${cell}” must be three numbers A B C (log10 mmHg, °C).`);
			into.antoine = { a, b, c };
		},
		write: (s) => s.antoine && `${s.antoine.a} ${s.antoine.b} ${s.antoine.c}`
	},
	number('liquid density g/cm3', 'liquidDensityGPerCm3'),
	number('refractive index', 'refractiveIndex'),
	{
		name: 'unit',
		read: (cell, into) => void (into.unit = oneOf(cell.replace('³', '3'), CONCENTRATION_UNITS)),
		write: (s) => limitUnitOf(s)
	},
	limit('us', 'twa', 'US limit 8 h'),
	limit('us', 'short', 'US limit short'),
	limit('uk', 'twa', 'UK limit 8 h'),
	limit('uk', 'short', 'UK limit short'),
	limit('rel', 'twa', 'US recommended 8 h'),
	limit('rel', 'short', 'US recommended short'),
	{
		name: 'IDLH',
		also: ['immediate danger'],
		read(cell, into, table) {
			into.idlh = readAmount(cell, into, table);
		},
		write: (s) => s.idlh && withUnit(s.idlh.value, s.idlh.unit, s)
	},
	number('LEL %', 'lelPercent'),
	number('odour threshold ppm', 'odourThresholdPpm'),
	{
		name: 'warning',
		read: (cell, into) => void (into.warning = oneOf(cell, ['adequate', 'poor', 'none'])),
		write: (s) => s.warning
	},
	{
		name: 'skin',
		read: (cell, into) => void (into.skin = yes(cell)),
		write: (s) => (s.skin ? 'yes' : 'no')
	},
	number('harms skin from ppm', 'skinHarmPpm'),
	{
		name: 'EN type',
		read: (cell, into) => void (into.en = oneOf(cell, EN_GAS_TYPES)),
		write: (s) => s.en
	},
	{
		name: 'US cartridge',
		read: (cell, into) => void (into.us = oneOf(cell, US_GAS_TYPES)),
		write: (s) => s.us
	},
	{
		name: 'target organs',
		read: (cell, into) =>
			void (into.organs = cell.split(/[;,|]/).map((word) => oneOf(word.trim(), TARGET_ORGANS))),
		write: (s) => s.organs?.join('; ')
	},
	{
		name: 'harms',
		read: (cell, into) =>
			void (into.harms = cell.split(/[;,|]/).map((word) => oneOf(word.trim(), HARMS))),
		write: (s) => s.harms?.join('; ')
	},
	{
		name: 'no filter',
		read: (cell, into) => void (into.noFilter = cell),
		write: (s) => s.noFilter
	},
	{ name: 'note', read: (cell, into) => void (into.note = cell), write: (s) => s.note }
];
