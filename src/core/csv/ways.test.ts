import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayColumn, momentColumn, numberColumn } from './columns.ts';
import { decodeText } from './decode.ts';
import { readTableFile } from './read-file.ts';
import type { TableWays } from './ways.ts';

interface Line {
	day: string | null;
	at: string | null;
	figure: number | null;
}
const COLUMNS = [
	dayColumn<Line>('day', 'day'),
	momentColumn<Line>('at', 'at'),
	numberColumn<Line>('figure', 'figure', { least: -1e6, most: 1e6 })
];
const empty = (): Line => ({ day: null, at: null, figure: null });
const read = (text: string, ways: TableWays = {}) =>
	readTableFile({ bytes: new TextEncoder().encode(text), ways }, COLUMNS, empty);
const figures = (cells: string[], ways: TableWays = {}, parted = ';') =>
	read(
		`day${parted}figure\n${cells.map((cell) => `${parted}${parted === ',' ? `"${cell}"` : cell}`).join('\n')}`,
		ways
	);
const days = (cells: string[], ways: TableWays = {}) =>
	read(`day;figure\n${cells.map((cell) => `${cell};1`).join('\n')}`, ways);

describe('numbers of a table', () => {
	it.each([
		[
			['2,5', '10'],
			[2.5, 10]
		],
		[
			['2.5', '10'],
			[2.5, 10]
		],
		[
			['1.234,5', '7'],
			[1234.5, 7]
		],
		[
			['1,234.5', '7'],
			[1234.5, 7]
		],
		[
			['1.234', '2,5'],
			[1234, 2.5]
		],
		[
			['1,234', '2.5'],
			[1234, 2.5]
		]
	])('%j can be read in one way only', (cells, expected) => {
		const { good, asks } = figures(cells);
		expect(asks).toEqual({});
		expect(good.map(({ record }) => record.figure)).toEqual(expected);
	});

	it.each([[['1,234']], [['1.234']], [['2,5', '2.5']]])(
		'%j is asked about, not guessed',
		(cells) => {
			const { good, faults, asks } = figures(cells);
			expect(asks.numbers).toEqual(cells);
			expect(good).toEqual([]);
			expect(faults[0]?.message).toMatch(/say above whether/);
		}
	);

	it('is read as it was said', () => {
		const said = (numbers: 'point' | 'comma') =>
			figures(['1,234', '1.234'], { numbers }).good.map(({ record }) => record.figure);
		expect(said('comma')).toEqual([1.234, 1234]);
		expect(said('point')).toEqual([1234, 1.234]);
	});

	it('with a point in a table parted by commas has a decimal point', () => {
		const { good, asks } = figures(['1.234'], {}, ',');
		expect([asks, good[0]?.record.figure]).toEqual([{}, 1.234]);
	});

	it('reads back any figure as each way writes it, once that way was said', () =>
		fc.assert(
			fc.property(
				fc.integer({ min: -999_999_999, max: 999_999_999 }).map((n) => n / 1000),
				fc.constantFrom('point' as const, 'comma' as const),
				(figure, numbers) => {
					const text = new Intl.NumberFormat(numbers === 'comma' ? 'de-DE' : 'en-GB', {
						maximumFractionDigits: 3
					}).format(figure);
					expect(figures([text], { numbers }).good[0]?.record.figure).toBe(figure);
				}
			)
		));
});

describe('days of a table', () => {
	it('with the year first are plain', () => {
		const { good, asks } = days(['2026-11-24', '2026/1/9', '2026.12.31']);
		expect(asks).toEqual({});
		expect(good.map(({ record }) => record.day)).toEqual([
			'2026-11-24',
			'2026-01-09',
			'2026-12-31'
		]);
	});

	it('with the year last are asked about, even where only one order makes a day', () => {
		const { good, asks } = days(['24.11.2026', '3/4/2026']);
		expect(asks.days).toEqual(['24.11.2026', '3/4/2026']);
		expect(good).toEqual([]);
	});

	it('are read in the order that was said; what is no day in it is a fault', () => {
		expect(days(['3.4.2026'], { days: 'day first' }).good.map(({ record }) => record.day)).toEqual([
			'2026-04-03'
		]);
		const american = days(['3/4/2026', '24/11/2026'], { days: 'month first' });
		expect(american.good.map(({ record }) => record.day)).toEqual(['2026-03-04']);
		expect(american.faults).toMatchObject([{ row: 3, column: 'day' }]);
		expect(days(['3.4.26'], { days: 'day first' }).faults).toHaveLength(1);
	});

	it('may have a time, or be a moment with its zone', () => {
		const { good, faults } = read(
			'at;figure\n2026-11-24 9:05;1\n24.11.2026 14:30;1\n2026-11-24T08:00:00.000Z;1\n2026-11-24 25:00;1',
			{ days: 'day first' }
		);
		expect(good.map(({ record }) => record.at)).toEqual([
			'2026-11-24T09:05',
			'2026-11-24T14:30',
			'2026-11-24T08:00:00.000Z'
		]);
		expect(faults.map(({ row }) => row)).toEqual([5]);
	});
});

describe('letters of a table', () => {
	const old = new Uint8Array([0x66, 0x69, 0x67, 0x0a, 0xcc, 0xe0, 0xf1, 0xea, 0xe0]);
	it('that are no UTF-8 are shown as each encoding reads them, and read in the one that was said', () => {
		const { asks } = decodeText(old, {});
		expect(asks.encoding?.find(({ encoding }) => encoding === 'Windows-1251')?.sample).toBe(
			'Маска'
		);
		expect(asks.encoding).toHaveLength(4);
		const said = decodeText(old, { encoding: 'Windows-1251' });
		expect([said.text, said.asks]).toEqual(['fig\nМаска', {}]);
	});
	it('where nobody can be asked are read as before', () =>
		expect(decodeText(old)).toMatchObject({ encoding: 'Windows-1252', asks: {} }));
});
