import { describe, expect, it } from 'vitest';
import { writeTable } from '../csv/table.ts';
import { readWearerTable, WEARER_COLUMNS } from './wearer-table.ts';

const HELD = { numbers: ['W1'], places: ['Ice plant', 'Quay'] };
const HEAD = 'number;name;glasses;beard;cleared until;trained until;places';
const read = (...lines: string[]) =>
	readWearerTable(new TextEncoder().encode([HEAD, ...lines].join('\n')), HELD);

describe('a table of wearers', () => {
	it('brings people with what is known, and empty cells as not known', () => {
		const { wearers, faults } = read(
			'W2;Nora Quist;yes;no;2027-06-30;;ice plant | Quay',
			'W3;Ola Brand;;;;;'
		);
		expect(faults).toEqual([]);
		expect(wearers).toEqual([
			{
				number: 'W2',
				name: 'Nora Quist',
				eyewear: true,
				beard: false,
				clearedUntil: '2027-06-30',
				trainedUntil: null,
				places: ['Ice plant', 'Quay']
			},
			{
				number: 'W3',
				name: 'Ola Brand',
				eyewear: false,
				beard: false,
				clearedUntil: null,
				trainedUntil: null,
				places: []
			}
		]);
	});

	it.each([
		[';Nora;;;;;', 'number', /Empty/],
		['W2;;;;;;', 'name', /Empty/],
		['w1;Nora;;;;;', 'number', /in the register already/],
		['W2;Nora;perhaps;;;;', 'glasses', /yes or no/],
		['W2;Nora;;;30.06.2027;;', 'cleared until', /30\.06\.2027/],
		['W2;Nora;;;;;Moon', 'places', /“Moon” is no place here/],
		[`W2;${'x'.repeat(81)};;;;;`, 'name', /At most 80/]
	])('%s: at fault in %s', (line, column, say) => {
		const { wearers, faults } = read(line);
		expect(faults).toMatchObject([{ row: 2, column }]);
		expect(faults[0]?.message).toMatch(say);
		expect(wearers).toEqual([]);
	});

	it('names a number that stands there twice by the row of the first', () =>
		expect(read('W2;Nora;;;;;', 'w2;Ola;;;;;').faults).toMatchObject([
			{ row: 3, column: 'number', message: /row 2 already/ }
		]));

	it('reads back what it writes', () => {
		const { wearers } = read('W2;Nora, called Q;yes;yes;2027-06-30;2027-01-01;Quay|Ice plant');
		const back = readWearerTable(
			new TextEncoder().encode(writeTable(wearers, WEARER_COLUMNS)),
			HELD
		);
		expect(back.wearers).toEqual(wearers);
	});
});
