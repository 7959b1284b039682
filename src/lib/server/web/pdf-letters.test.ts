import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { inFonts, LETTERS } from './pdf-letters.ts';
import { makePdf } from './pdf.ts';

// Published: the alphabets of the official languages of Europe; from memory.
const ALPHABETS: Record<string, string> = {
	Albanian: 'ëç',
	Croatian: 'čćđšž',
	Czech: 'áčďéěíňóřšťúůýž',
	Danish: 'æøå',
	Estonian: 'äõöüšž',
	Finnish: 'äöå',
	French: 'àâæçéèêëîïôœùûüÿ',
	German: 'äöüßẞ',
	Greek: 'αβγδεζηθικλμνξοπρσςτυφχψωάέήίόύώϊϋΐΰ',
	Hungarian: 'áéíóöőúüű',
	Icelandic: 'áéíóúýþæöð',
	Irish: 'áéíóúḃċḋ',
	Italian: 'àèéìòù',
	Latvian: 'āčēģīķļņšūž',
	Lithuanian: 'ąčęėįšųūž',
	Maltese: 'ċġħż',
	Polish: 'ąćęłńóśźż',
	Portuguese: 'ãõáâàçéêíóôú',
	Romanian: 'ăâîșț',
	Slovak: 'áäčďéíĺľňóôŕšťúýž',
	Slovene: 'čšž',
	Spanish: 'áéíñóúü¿¡',
	Swedish: 'åäö',
	Turkish: 'çğıİöşü',
	Welsh: 'âêîôûŵŷ',
	Bulgarian: 'абвгдежзийклмнопрстуфхцчшщъьюя',
	Macedonian: 'ѓѕјљњќџ',
	Serbian: 'ђјљњћџ',
	Ukrainian: 'ґєіїщь',
	Belarusian: 'ёіўэ'
};

describe('letters of a paper', () => {
	it.each(Object.entries(ALPHABETS))('of %s all have a file that holds them', (_, letters) => {
		// Some have no capital of one letter.
		for (const letter of [...letters]
			.flatMap((one) => [one, ...one.toUpperCase().normalize('NFC')])
			.filter((one) => !/\p{M}/u.test(one)))
			expect(
				Object.values(LETTERS).some((known) => known.test(letter)),
				letter
			).toBe(true);
	});

	it('stay one text where the first file has them all, and are parted where not', () => {
		expect(inFonts('Änne Brõd')).toBe('Änne Brõd');
		expect(inFonts('Lodz: Łódź 5')).toEqual([
			{ text: 'Lodz: ' },
			{ text: 'Ł', font: 'AtkinsonExt' },
			{ text: 'ód' },
			{ text: 'ź ', font: 'AtkinsonExt' },
			{ text: '5' }
		]);
	});

	it('are kept in the PDF as letters, none as the empty box', async () => {
		const pdf = Buffer.from(
			await makePdf({ content: Object.values(ALPHABETS).join(' '), compress: false })
		).toString('latin1');
		// Each font that it was set in tells which letter each of its glyphs is.
		const told = [...pdf.matchAll(/<([0-9a-f]{4})>(?=[\s\]])/gi)].map(([, hex]) =>
			String.fromCharCode(parseInt(hex ?? '', 16))
		);
		for (const letter of ['ł', 'ő', 'ș', 'ğ', 'ω', 'ж', 'ї', 'ü'])
			expect(told, letter).toContain(letter);
	});
});

it('the files of the fonts are there', () => {
	for (const name of ['greek', 'cyrillic', 'cyrillic-ext'])
		expect(
			readFileSync(`node_modules/@fontsource/noto-sans/files/noto-sans-${name}-400-normal.woff`)
				.length
		).toBeGreaterThan(1000);
});

it('letters within a drawing are set in the fonts of the app too', async () => {
	const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 240 60"><text x="5" y="20" font-family="Atkinson">limit</text></svg>`;
	const pdf = Buffer.from(await makePdf({ content: [{ svg }], compress: false })).toString(
		'latin1'
	);
	expect(pdf).toMatch(/\/BaseFont \/[A-Z]+\+AtkinsonHyperlegible/);
});
