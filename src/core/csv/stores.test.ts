import { describe, expect, it } from 'vitest';
import { readStoreTable } from '../filters/store-table.ts';
import { partNamed, readPartTable } from '../service/parts-table.ts';
import { MODEL_TEMPLATES } from '../data/model-templates.ts';
import { FAMILIES } from '../data/families.ts';
import { recordOf } from '../data/family-records.ts';

const bytes = (...lines: string[]) => new TextEncoder().encode(lines.join('\n'));
const HELD = { models: [{ id: 'm1', name: 'Tern A2' }], lots: [{ modelId: 'm1', lot: 'L1' }] };
const HEAD = 'filter;mount;EN marking;US marking;mass of one, g;what it is;lot;use by;sealed';
const read = (...lines: string[]) => readStoreTable(bytes(HEAD, ...lines), HELD, '2026-11-24');

describe('a table of filters', () => {
	it('brings lots of what is known by name alone, and a model once however many lots it has', () => {
		const table = read(
			'tern a2;;;;;;L2;2029-01-31;10',
			'New P3;thread;P3;;60;;A;2029-01-31;10',
			'New P3;thread;P3;;60;;B;2029-01-31;10',
			'Ring;thread;;;5;adapter;R;2029-01-31;4'
		);
		expect(table.faults).toEqual([]);
		expect(table.models.map(({ name, role, maker }) => [name, role, maker])).toEqual([
			['New P3', 'filter', 'not stated'],
			['Ring', 'adapter', 'not stated']
		]);
		expect(table.lots.map(({ model, lot }) => [model, lot])).toEqual([
			['Tern A2', 'L2'],
			['New P3', 'A'],
			['New P3', 'B'],
			['Ring', 'R']
		]);
	});

	it.each([
		['Tern A2;;;;;;L1;2029-01-31;10', ['lot'], /in the store already/],
		['Tern A2;;;;;;L3;2026-11-23;10', ['use by'], /has passed/],
		['Tern A2;;;;;;L3;23.11.2029;10', ['use by'], /23\.11\.2029/],
		['Tern A2;;;;;;L3;2029-01-31;0', ['sealed'], /from 1 to/],
		['Tern A2;;;;;;L3;2029-01-31;2,5', ['sealed'], /whole number/i],
		['New;;;;;;L3;2029-01-31;5', ['mount', 'mass of one, g', 'EN marking'], /./],
		['New;thread;Q9;;60;;L3;2029-01-31;5', ['EN marking'], /no EN marking/],
		['New;thread;P3;;60;hat;L3;2029-01-31;5', ['what it is'], /One of/],
		['Ring;thread;;;;retainer;L3;2029-01-31;5', ['mass of one, g'], /mass/]
	])('%s: at fault in %j', (line, columns, say) => {
		const { faults, lots } = read(line);
		expect(faults.map(({ row, column }) => [row, column])).toEqual(columns.map((c) => [2, c]));
		expect(faults[0]?.message).toMatch(say);
		expect(lots).toEqual([]);
	});

	it('names a lot that stands there twice by the row of the first', () =>
		expect(
			read('Tern A2;;;;;;L9;2029-01-31;1', 'TERN A2;;;;;;L9;2029-01-31;1').faults
		).toMatchObject([{ row: 3, column: 'lot', message: /row 2 already/ }]));

	it('without a heading that is needed is no such table', () =>
		expect(() => readStoreTable(bytes('filter;lot', 'A;B'), HELD, '2026-11-24')).toThrow(
			/lacks.*use by.*sealed/
		));
});

describe('a table of spare parts', () => {
	const parts = (...lines: string[]) =>
		readPartTable(
			bytes('part,lot,quantity,use by', ...lines),
			[{ part: 'lens', lot: 'N1' }],
			'2026-11-24'
		);

	it('knows a part by its name or its key', () => {
		expect(partNamed('Exhalation disc')).toBe('disc-exhalation');
		expect(partNamed('disc-exhalation')).toBe('disc-exhalation');
		expect(partNamed(' EXHALATION  DISC ')).toBe('disc-exhalation');
		const { lots, faults } = parts('lens,N2,3,', 'O-ring,Q,20,2030-01-31');
		expect(faults).toEqual([]);
		expect(lots).toMatchObject([
			{ part: 'lens', useBy: null },
			{ part: 'o-ring', useBy: '2030-01-31' }
		]);
	});

	it.each([
		['kite,K,1,', 'part', /no part that the store keeps/],
		['lens,N1,1,', 'lot', /in the store already/],
		['lens,N2,1,2020-01-31', 'use by', /has passed/],
		['lens,N2,-1,', 'quantity', /from 1/],
		['lens,,1,', 'lot', /Empty/]
	])('%s: at fault in %s', (line, column, say) => {
		const { faults, lots } = parts(line);
		expect(faults).toMatchObject([{ row: 2, column }]);
		expect(faults[0]?.message).toMatch(say);
		expect(lots).toEqual([]);
	});
});

describe('models by their construction', () => {
	it('cover every family but the filter itself, and take filters only where the family carries them', () => {
		const covered = new Set(MODEL_TEMPLATES.map(({ family }) => family));
		expect(FAMILIES.map(({ family }) => family).filter((family) => !covered.has(family))).toEqual([
			'opened-filter'
		]);
		for (const { key, family, mount, filterCount } of MODEL_TEMPLATES) {
			expect(filterCount > 0, key).toBe(mount !== 'none');
			if (filterCount) expect(recordOf(family).carries, key).not.toBeNull();
		}
		expect(new Set(MODEL_TEMPLATES.map(({ name }) => name)).size).toBe(MODEL_TEMPLATES.length);
	});
});
