import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Content, Margins, TDocumentDefinitions } from 'pdfmake/interfaces';
import pdfmake from 'pdfmake';
import { type LetterFont, spelled } from './pdf-letters.ts';
import { fontOfWoff } from './woff.ts';
import { readableMoment } from '../../../core/plan/moments.ts';

const FILES = join(process.cwd(), 'node_modules/@fontsource');
type FontFaces = Record<'normal' | 'bold' | 'italics' | 'bolditalics', string>;

/** The faces of a font, each unpacked once into a folder, from which text of pages and of drawings takes them. */
function font(folder: string, family: string, script: string, italics = true): FontFaces {
	const face = (style: string) => {
		const name = `${family}-${script}-${style}`;
		const to = join(folder, `${name}.ttf`);
		writeFileSync(to, fontOfWoff(readFileSync(join(FILES, family, 'files', `${name}.woff`))));
		return to;
	};
	const upright = { normal: face('400-normal'), bold: face('700-normal') };
	return italics
		? { ...upright, italics: face('400-italic'), bolditalics: face('700-italic') }
		: { ...upright, italics: upright.normal, bolditalics: upright.bold };
}

let ready = false;

/** Fonts of the app; nothing is fetched. */
function prepare(): void {
	if (ready) return;
	const folder = mkdtempSync(join(tmpdir(), 'grevan-fonts-'));
	process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
	const fonts: Record<LetterFont, FontFaces> = {
		Atkinson: font(folder, 'atkinson-hyperlegible-next', 'latin'),
		AtkinsonExt: font(folder, 'atkinson-hyperlegible-next', 'latin-ext'),
		NotoGreek: font(folder, 'noto-sans', 'greek', false),
		NotoCyrillic: font(folder, 'noto-sans', 'cyrillic', false),
		NotoCyrillicExt: font(folder, 'noto-sans', 'cyrillic-ext', false)
	};
	pdfmake.setFonts(fonts);
	pdfmake.setUrlAccessPolicy(() => false);
	// Of this machine it reads its fonts and nothing else, whatever a document names.
	pdfmake.setLocalAccessPolicy((path) => path.startsWith(folder));
	ready = true;
}

/** A PDF of a document, in the app's own type. */
export async function makePdf(document: TDocumentDefinitions): Promise<Uint8Array> {
	prepare();
	const made = pdfmake.createPdf({
		pageSize: 'A4',
		pageMargins: [48, 48, 48, 48],
		...document,
		content: spelled(document.content),
		defaultStyle: { font: 'Atkinson', fontSize: 12, lineHeight: 1.25, ...document.defaultStyle }
	});
	return new Uint8Array(await made.getBuffer());
}

/** The end of the log as it was signed last. */
export interface Signed {
	seq: number;
	hash: string;
	at: string;
}

/** The line under a paper by which it can be held against the log; nothing where the log is not signed. */
export const signedLine = (signed: Signed | null, timeZone: string, margin?: Margins): Content[] =>
	signed
		? [
				{
					text: `Log: entry ${signed.seq}, ${signed.hash.slice(0, 16)}, signed ${readableMoment(new Date(signed.at), timeZone)}.`,
					fontSize: 9,
					...(margin ? { margin } : {})
				}
			]
		: [];

/** A PDF as a browser shows it. */
export const pdfResponse = (pdf: Uint8Array, name: string): Response =>
	new Response(pdf.buffer as ArrayBuffer, {
		headers: {
			'content-type': 'application/pdf',
			'content-disposition': `inline; filename="${name}"`
		}
	});
