import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SUBSTANCES } from '../data/substances.ts';
import { emptyDraft, SUBSTANCE_COLUMNS, withoutUnit } from '../substances/csv.ts';
import { ownSubstance } from '../substances/record.ts';
import { InputError } from '../verdict.ts';
import { decodeText } from './decode.ts';
import { MOST_COLUMNS, MOST_ROWS, readTable, writeTable } from './table.ts';

const read = (text: string) => readTable(text, SUBSTANCE_COLUMNS, emptyDraft);
const message = (run: () => unknown) => {
	try {
		run();
	} catch (error) {
		expect(error).toBeInstanceOf(InputError);
		return (error as Error).message;
	}
	return 'accepted';
};

describe('the bytes of a file', () => {
	const text = 'name;form\nFuß-Öl µ;vapour\n';
	it('are read as UTF-8, with or without its mark', () => {
		expect(decodeText(new TextEncoder().encode(text))).toEqual({
			text,
			encoding: 'UTF-8',
			asks: {}
		});
		const marked = new Uint8Array([0xef, 0xbb, 0xbf, ...new TextEncoder().encode(text)]);
		expect(decodeText(marked).text).toBe(text);
	});
	it('are read as UTF-16, and as Windows-1252 where they are no UTF-8', () => {
		const wide = new Uint8Array([
			0xff,
			0xfe,
			...[...text].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8])
		]);
		expect(decodeText(wide)).toEqual({ text, encoding: 'UTF-16', asks: {} });
		const old = new Uint8Array([...text].map((c) => c.charCodeAt(0)));
		expect(decodeText(old)).toEqual({ text, encoding: 'Windows-1252', asks: {} });
	});
	it('are refused when they are a spreadsheet or no text', () => {
		expect(message(() => decodeText(new Uint8Array([0x50, 0x4b, 3, 4])))).toMatch(/Save it as CSV/);
		expect(message(() => decodeText(new Uint8Array([1, 0, 2, 0, 0])))).toMatch(/not a text file/);
	});
});

describe('a table', () => {
	it.each([
		['comma', 'name,form,UK limit 8 h\nX,gas,1.5\n'],
		['semicolon', 'name;form;UK limit 8 h\nX;gas;1,5\n'],
		['tab', 'Name\tForm\tuk limit 8 h\nX\tgas\t1.5\n'],
		['bar', 'name|form|UK_limit_8_h\nX|gas|1.5\n']
	])('is parted by %s', (separator, text) => {
		const table = read(text);
		expect(table.separator).toBe(separator);
		expect(table.faults).toEqual([]);
		expect(table.good[0]?.record.limits.uk?.twa).toBe(1.5);
	});

	it('names every bad cell by row and column and keeps the good rows', () => {
		const table = read(
			[
				'name,form,CAS,UK limit 8 h,EN type,mystery',
				'Good,vapour,108-88-3,50,A,1',
				'Bad limit,vapour,,-3,A,',
				'Bad form,steam,,1,,',
				',gas,,1,,',
				'Bad CAS,gas,108-88-4,1,Q,',
				'"Comma, in name",gas,,"1,5",,',
				'Too,gas,,1,,x,y,z'
			].join('\n')
		);
		expect(table.good.map((g) => [g.row, g.record.name])).toEqual([[2, 'Good']]);
		expect(table.faults.map((f) => `${f.row} ${f.column}`)).toEqual([
			'3 UK limit 8 h',
			'4 form',
			'5 name',
			'6 CAS',
			'6 EN type',
			'7 UK limit 8 h',
			'8 '
		]);
		expect(table.faults[1]?.message).toMatch(/“steam” is none of: gas, vapour/);
		expect(table.faults[5]?.message).toMatch(/write a point/);
		expect(table.unknown).toEqual(['mystery']);
	});

	it.each([
		['nothing', '', /no row below/],
		['a heading alone', 'name,form', /no row below/],
		['a missing column', 'name,kind\nX,gas', /lacks “form”.*It holds: name, kind/],
		['a heading twice', 'name,form,Name\nX,gas,Y', /stands there twice/]
	])('is refused with %s', (_, text, expected) =>
		expect(message(() => read(text))).toMatch(expected)
	);

	it('is refused with more headings than a table of ours has, before they are compared', () => {
		const headings = (n: number) =>
			`name,form,${Array.from({ length: n }, (_, i) => `x${i}`).join(',')}\n`;
		expect(read(`${headings(MOST_COLUMNS - 2)}X,gas\n`).good).toHaveLength(1);
		expect(message(() => read(`${headings(40_000)}X,gas\n`))).toMatch(/40002 columns; at most 200/);
	});

	it('takes 50,000 rows and no more', () => {
		const rows = (n: number) =>
			`name,form,UK limit 8 h\n${Array.from({ length: n }, (_, i) => `S${i},gas,${i + 1}`).join('\n')}`;
		const table = read(rows(MOST_ROWS));
		expect([table.rows, table.good.length, table.faults.length]).toEqual([MOST_ROWS, MOST_ROWS, 0]);
		expect(message(() => read(rows(MOST_ROWS + 1)))).toMatch(/50001 rows; at most 50000/);
	});

	it('writes what it reads back, and no formula', () => {
		const text = writeTable(SUBSTANCES, SUBSTANCE_COLUMNS);
		const back = read(text);
		expect(back.faults).toEqual([]);
		expect(back.good).toHaveLength(SUBSTANCES.length);
		back.good.forEach(({ record }, i) => {
			const s = SUBSTANCES[i];
			expect([
				record.name,
				record.cas,
				record.limits,
				record.idlh,
				record.en,
				record.organs
			]).toEqual([s?.name, s?.cas, s?.limits, s?.idlh, s?.en, s?.organs]);
		});
		const evil = { ...emptyDraft(), name: '=HYPERLINK("x")', note: '-5 °C' };
		expect(writeTable([evil], SUBSTANCE_COLUMNS)).toContain("'=HYPERLINK");
	});

	it.each([
		['=1+1'],
		['+1+cmd'],
		['-1+cmd'],
		['-5 °C'],
		['@SUM(A1)'],
		['  =1+1'],
		['\t=1+1'],
		['\r\n=1+1'],
		['"=1+1'],
		["'=1+1"],
		['\u200B=1+1'],
		['＝1+1'],
		['＠SUM(A1)'],
		['|cmd']
	])('writes a cell that begins like %j as text', (note) => {
		const text = writeTable([{ ...emptyDraft(), name: 'N', note }], SUBSTANCE_COLUMNS);
		expect(text).toContain(`'${note.replaceAll('"', '""')}`);
	});

	it.each([['-5'], ['+2.5'], ['-1e3'], ['-0,4']])('leaves the number %s a number', (note) => {
		const text = writeTable([{ ...emptyDraft(), name: 'N', note }], SUBSTANCE_COLUMNS);
		expect(text).not.toContain("'");
	});

	it('never throws anything but a located fault, whatever it is given', () => {
		fc.assert(
			fc.property(fc.string({ maxLength: 400 }), (text) => {
				message(() => read(text));
			}),
			{ numRuns: 200 }
		);
	});
});

describe('a substance of the site', () => {
	const draft = { ...emptyDraft(), name: 'Slipway  Cleaner №5', formula: 'C10H16' };
	it('gets its key from its name and its mass from its formula', () => {
		const s = ownSubstance(withoutUnit(draft));
		expect(s.key).toBe('slipway-cleaner-no5');
		expect(s.molarMassGPerMol).toBeCloseTo(136.23, 1);
	});
	it.each([
		[{ name: ' ' }, /needs a name/],
		[{ formula: 'Xy2' }, /no weight for/],
		[{ formula: 'water!' }, /no plain formula/],
		[{ cas: '108-88-4' }, /check digit/],
		[{ limits: { uk: { twa: 0, unit: 'ppm' as const } } }, /UK limit must be above zero/],
		[{ refractiveIndex: 0.9 }, /above 1/]
	])('is refused: %o', (part, expected) =>
		expect(message(() => ownSubstance({ ...draft, ...part }))).toMatch(expected)
	);
});
