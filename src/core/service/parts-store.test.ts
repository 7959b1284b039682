import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { REPAIRS } from '../data/repairs.ts';
import { partForStation } from '../data/repairs.ts';
import { plusDays } from '../plan/calendar.ts';
import { partName, STORE_PARTS, stockOf } from './parts-store.ts';

const TODAY = '2026-11-27';

describe('the store of parts', () => {
	it('keeps every part that a repair uses, under a name of its own', () => {
		for (const { parts } of REPAIRS)
			for (const { part } of parts)
				expect(STORE_PARTS[partForStation(part, 'inhalation-left')]?.consumable, part).toBe(false);
		const names = Object.values(STORE_PARTS).map(({ name }) => name);
		expect(new Set(names).size).toBe(names.length);
		expect(partName('kite')).toBe('kite');
	});

	it.each([
		[10, null, 10, 0, 0],
		[10, TODAY, 10, 0, 10],
		[10, plusDays(TODAY, -1), 0, 10, 0],
		[10, plusDays(TODAY, 60), 10, 0, 10],
		[10, plusDays(TODAY, 61), 10, 0, 0]
	])(
		'%i with the last day %s: %i to use, %i past, %i run out',
		(quantity, useBy, usable, past, runsOut) =>
			expect(stockOf([{ quantity, useBy }], 0, TODAY)).toEqual({
				usable,
				past,
				runsOut,
				buy: false
			})
	);

	it.each([
		[5, 5, false],
		[4, 5, true],
		[0, 0, false]
	])('with %i to use and a level of %i more is bought: %s', (quantity, level, buy) =>
		expect(stockOf([{ quantity, useBy: null }], level, TODAY).buy).toBe(buy)
	);

	it('a delivery never makes more be bought, a day that passes never less', () => {
		const lot = fc.record({
			quantity: fc.integer({ min: 0, max: 50 }),
			useBy: fc.option(
				fc.integer({ min: -40, max: 90 }).map((n) => plusDays(TODAY, n)),
				{ nil: null }
			)
		});
		fc.assert(
			fc.property(fc.array(lot), lot, fc.nat(100), fc.nat(60), (lots, more, level, days) => {
				const buy = (of: typeof lots, day: string) => Number(stockOf(of, level, day).buy);
				expect(buy([...lots, more], TODAY)).toBeLessThanOrEqual(buy(lots, TODAY));
				expect(buy(lots, plusDays(TODAY, days))).toBeGreaterThanOrEqual(buy(lots, TODAY));
			})
		);
	});
});
