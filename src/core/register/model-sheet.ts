import { BLOCKING, type DonningCard, SEAL_WAYS } from '../data/blocking.ts';
import { stationOf } from '../data/families.ts';
import { recordOf } from '../data/family-records.ts';
import { type Change, changesBetween } from '../site/changes.ts';
import { cardNumbersOf, hasHold, type ModelCard } from './model-card.ts';

/** A model as its maker gives it. */
export interface ModelSaid {
	family: string;
	maker: string;
	name: string;
	mount: string;
	filterCount: number;
	ratedBar: number | null;
	holdDropBar: number | null;
	donning: DonningCard | null;
	approved: readonly string[];
	makerLines: readonly { station: string; text: string }[];
	card: ModelCard;
}

/** One line of what is said of a model. */
export interface SheetLine {
	label: string;
	/** In words; empty: not known, or not of this kind. */
	value: string;
}

const FILTERS = ['no filter of its own', 'one filter', 'two filters'];

const figure = (value: number | null | undefined, unit: string): string =>
	value === null || value === undefined ? '' : `${value} ${unit}`;

const stationNames = (family: string, keys: readonly string[] = []): string =>
	keys.map((key) => stationOf(family, key).name).join('; ');

/** Everything that is said of a model, line by line; two models of a family have the same lines. */
export function sheetOf(model: ModelSaid): SheetLine[] {
	const { family, card, donning } = model;
	const record = recordOf(family);
	const lines: (SheetLine | null)[] = [
		{ label: 'Model', value: model.name },
		{ label: 'Maker', value: model.maker },
		record.carries && {
			label: 'Filters',
			value: `${FILTERS[model.filterCount] ?? model.filterCount}${model.mount === 'none' ? '' : `, ${model.mount}`}`
		},
		{ label: 'Rated pressure', value: figure(model.ratedBar, 'bar') },
		hasHold(family)
			? {
					label: 'Lost in the hold',
					value:
						model.holdDropBar === null && !card.holdBelow
							? ''
							: `${card.holdBelow ? 'less than ' : ''}${model.holdDropBar ?? 10} bar${card.holdBelow ? '' : ' at most'}`
				}
			: null,
		...cardNumbersOf(family).map(({ key, label, unit }) => ({
			label,
			value: figure(card[key], unit)
		})),
		record.washed || card.agents
			? { label: 'Disinfected with', value: card.agents?.join(', ') ?? '' }
			: null,
		{ label: 'Never wetted', value: stationNames(family, card.keepDry) },
		record.inlets.length ? { label: 'Put on', value: donning?.straps.join(' ') ?? '' } : null,
		record.inlets.length
			? {
					label: 'Seal check',
					value: donning
						? [
								donning.inlet ? BLOCKING[donning.inlet].name.toLowerCase() : '',
								donning.ways?.map((way) => `${SEAL_WAYS[way].name.toLowerCase()} only`).join(),
								donning.holdSeconds ? `${donning.holdSeconds} s` : ''
							]
								.filter(Boolean)
								.join(', ')
						: ''
				}
			: null,
		record.carries || record.takesParts
			? { label: 'Approved with it', value: model.approved.join(', ') }
			: null,
		{
			label: 'Added at stations',
			value: model.makerLines
				.map(({ station, text }) => `${stationOf(family, station).name}: ${text}`)
				.join(' ')
		}
	];
	return lines.filter((line) => line !== null);
}

/** What differs between a model as it was and as it is. */
export function modelChanges(before: ModelSaid, after: ModelSaid): Change[] {
	const [was, is] = [before, after].map((model) =>
		Object.fromEntries(sheetOf(model).map(({ label, value }) => [label, value]))
	);
	const names = Object.fromEntries(Object.keys({ ...was, ...is }).map((key) => [key, key]));
	return changesBetween<Record<string, string | undefined>>(was ?? {}, is ?? {}, names);
}
