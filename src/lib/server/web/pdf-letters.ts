import type { Content } from 'pdfmake/interfaces';

/** Families of which each file holds the letters of some scripts only, as the packages part them. */
export const LETTERS = {
	/** What the app's own type has in its first file. */
	Atkinson:
		/[\t\n\r\u0020-\u007E\u00A0-\u00FF\u0131\u0152\u0153\u02BB\u02BC\u02C6\u02DA\u02DC\u2000-\u206F\u20AC\u2122\u2191\u2193\u2212\u2215\uFEFF\uFFFD]/,
	AtkinsonExt: /[\u0100-\u024F\u1E02-\u1EFF\u20A0-\u20C0]/,
	NotoGreek: /[\u0370-\u03FF]/,
	NotoCyrillic: /\u0301|[\u0400-\u045F\u0490\u0491\u04B0\u04B1\u2116]/,
	NotoCyrillicExt: /[\u0460-\u052F\u1C80-\u1C88\uA640-\uA69F]/
} as const;
export type LetterFont = keyof typeof LETTERS;

const FONTS = Object.entries(LETTERS) as [LetterFont, RegExp][];
const fontOf = (letter: string): LetterFont =>
	FONTS.find(([, letters]) => letters.test(letter))?.[0] ?? 'Atkinson';

/** A text parted where another file holds its letters; as it is where the first one has them all. */
export function inFonts(text: string): string | { text: string; font?: LetterFont }[] {
	const parts: { text: string; font: LetterFont }[] = [];
	// The one sign of the screens that no file has.
	for (const letter of text.normalize('NFC').replaceAll('→', 'to')) {
		const last = parts.at(-1);
		// A blank stays with what is before it.
		const font = /\s/.test(letter) && last ? last.font : fontOf(letter);
		if (last?.font === font) last.text += letter;
		else parts.push({ text: letter, font });
	}
	if (parts.every(({ font }) => font === 'Atkinson'))
		return parts.map((part) => part.text).join('');
	return parts.map(({ text: part, font }) =>
		font === 'Atkinson' ? { text: part } : { text: part, font }
	);
}

/** A document in which every letter stands in a file that has it. */
export function spelled(node: Content): Content {
	if (typeof node === 'string') {
		const parts = inFonts(node);
		return typeof parts === 'string' ? parts : { text: parts };
	}
	if (Array.isArray(node)) return node.map(spelled);
	if (typeof node !== 'object' || node === null) return node;
	const copy: Record<string, unknown> = { ...node };
	for (const key of ['text', 'stack', 'columns', 'ul', 'ol'])
		if (key in copy) {
			const value = copy[key];
			copy[key] =
				key === 'text' && typeof value === 'string' ? inFonts(value) : spelled(value as Content);
		}
	const { table } = copy as { table?: { body: Content[][] } };
	if (table) copy.table = { ...table, body: table.body.map((row) => row.map(spelled)) };
	return copy as unknown as Content;
}
