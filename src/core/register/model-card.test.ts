import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FAMILIES } from '../data/families.ts';
import { MODEL_TEMPLATES } from '../data/model-templates.ts';
import { judgePack } from '../filters/stock.ts';
import { judgeReading } from '../inspection/reading.ts';
import { procedureFor, PROCEDURES } from '../data/procedures.ts';
import {
	CARD_NUMBERS,
	cardNumbersOf,
	checkCard,
	type ModelCard,
	readingLimits
} from './model-card.ts';
import { modelChanges, type ModelSaid, sheetOf } from './model-sheet.ts';

const set = (card: ModelCard, part: Partial<ModelSaid> = {}): ModelSaid => ({
	family: 'ba-set',
	maker: 'Corrivane',
	name: 'One',
	mount: 'none',
	filterCount: 0,
	ratedBar: 300,
	holdDropBar: null,
	donning: null,
	approved: [],
	makerLines: [],
	card,
	...part
});

describe('the card of a model', () => {
	it.each([
		['ba-set', { whistleFromBar: 49, whistleToBar: 55 }, 'whistleFromBar'],
		['ba-set', { whistleFromBar: 52 }, 'whistleToBar'],
		['ba-set', { whistleFromBar: 56, whistleToBar: 54 }, 'whistleToBar'],
		['ba-set', { mediumFromBar: 7, mediumToBar: 7 }, 'mediumToBar'],
		['half-mask', { filterMassG: 301 }, 'filterMassG'],
		['half-mask', { washMaxC: 80 }, 'washMaxC'],
		['half-mask', { keepDry: ['whistle'] }, 'keepDry']
	] as [string, ModelCard, string][])('of a %s with %j is refused at %s', (family, card, path) =>
		expect(() => checkCard(card, family)).toThrow(expect.objectContaining({ path }))
	);

	it('keeps what its family has and drops the rest', () => {
		expect(
			checkCard(
				{
					washMaxC: 49,
					whistleFromBar: 52,
					blowerLPerMin: 160,
					holdBelow: true,
					agents: ['iodine']
				},
				'half-mask'
			)
		).toEqual({ washMaxC: 49, agents: ['iodine'] });
	});

	it('is kept the same when it is kept again, for every family', () => {
		const figures = fc.record(
			Object.fromEntries(
				CARD_NUMBERS.map(({ key, least, most }) => [
					key,
					fc.double({ min: least, max: most, noNaN: true })
				])
			),
			{ requiredKeys: [] }
		) as fc.Arbitrary<ModelCard>;
		fc.assert(
			fc.property(
				figures,
				fc.constantFrom(...FAMILIES.map(({ family }) => family)),
				(card, family) => {
					let kept: ModelCard;
					try {
						kept = checkCard(card, family);
					} catch {
						return;
					}
					expect(checkCard(kept, family)).toEqual(kept);
					const allowed = cardNumbersOf(family).map(({ key }) => key as string);
					expect(Object.keys(kept).every((key) => allowed.includes(key))).toBe(true);
				}
			)
		);
	});

	it('every shipped kind of construction holds by its own rules', () => {
		for (const { key, card, family } of MODEL_TEMPLATES)
			expect(checkCard(card, family), key).toEqual(card);
	});
});

describe('what a card says decides', () => {
	const bench = procedureFor('ba-set', 'bench');
	const step = (key: string) => {
		const found = [bench, ...PROCEDURES.filter((p) => p.key === 'ba-set-deep')]
			.flatMap(({ steps }) => steps)
			.find((one) => one.key === key);
		if (!found) throw new RangeError(key);
		return found;
	};
	const judged = (
		key: string,
		readings: object,
		card: ModelCard,
		holdDropBar: number | null = null
	) => judgeReading(step(key), readings, readingLimits(set(card, { holdDropBar })));

	// Published: EN 137, 10 bar at most and 55 ± 5 bar, from memory; “less than” and the narrower band are a maker's.
	it.each([
		[{}, 10, 'good'],
		[{ holdBelow: true }, 10, 'reject'],
		[{ holdBelow: true }, 9, 'good']
	] as [ModelCard, number, string][])(
		'a hold with %j that lost %i bar is %s',
		(card, lost, value) =>
			expect(judged('hold', { start: 290, end: 290 - lost, seconds: 60 }, card).value).toBe(value)
	);
	it('a hold with “less than 8” fails at 8', () => {
		const at = (end: number) =>
			judged('hold', { start: 290, end, seconds: 60 }, { holdBelow: true }, 8);
		expect([at(282.1).value, at(282).value]).toEqual(['good', 'reject']);
	});
	it.each([
		[{}, 51, 'good', null],
		[{ whistleFromBar: 53, whistleToBar: 58 }, 51, 'reject', 'WHL'],
		[{ whistleFromBar: 53, whistleToBar: 58 }, 59, 'reject', 'WHH'],
		[{ whistleFromBar: 53, whistleToBar: 58 }, 58, 'good', null]
	] as [ModelCard, number, string, string | null][])(
		'a whistle with %j at %i bar is %s',
		(card, value, answer, code) =>
			expect(judged('whistle', { value }, card)).toMatchObject({ value: answer, code })
	);
	it('a medium pressure is judged by the band of the model, and by nothing without one', () => {
		const band = { mediumFromBar: 6.5, mediumToBar: 9 };
		expect(judged('medium', { value: 6.5 }, band).value).toBe('good');
		expect(judged('medium', { value: 9.1 }, band)).toMatchObject({ value: 'reject', code: 'BAND' });
		expect(() => judged('medium', { value: 7 }, {})).toThrow(/no band of medium pressure/);
	});
	it('filters that weigh more than the maker allows do not serve, though the standard would', () => {
		const lot = {
			codeEn: 'A2',
			codeUs: null,
			mount: 'thread',
			massG: 120,
			useBy: '2030-01-01',
			sealedQuantity: 9
		};
		const need = { mount: 'thread', filters: 2, carrier: 'half mask' as const };
		expect(judgePack(lot, need, '2026-11-27').outcome).toBe('serves');
		const own = judgePack(lot, { ...need, mostG: 239 }, '2026-11-27');
		expect(own.outcome).toBe('does not');
		expect(own.reasons[0]?.origin.kind).toBe('maker');
	});
});

describe('the sheet of a model', () => {
	it('has the same lines for every model of a family, and says what changed', () => {
		const before = set({ whistleFromBar: 50, whistleToBar: 60 });
		const after = set({ whistleFromBar: 52, whistleToBar: 60, holdBelow: true });
		expect(sheetOf(before).map(({ label }) => label)).toEqual(
			sheetOf(after).map(({ label }) => label)
		);
		expect(modelChanges(before, after)).toEqual([
			{ what: 'Lost in the hold', from: 'none', to: 'less than 10 bar' },
			{ what: 'Whistle not below', from: '50 bar', to: '52 bar' }
		]);
		expect(modelChanges(after, after)).toEqual([]);
	});
});
