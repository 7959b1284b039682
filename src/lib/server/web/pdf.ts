import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Content, Margins, TDocumentDefinitions } from 'pdfmake/interfaces';
import pdfmake from 'pdfmake';
import { type LetterFont, spelled } from './pdf-letters.ts';
import { fontOfWoff } from './woff.ts';
import { readableMoment } from '../../../core/plan/moments.ts';

const FILES = join(process.cwd(), 'node_modules/@fontsource');
const font = (family: string, script: string, italics = true) => {
	const at = `${family}/files/${family}-${script}`;
	const upright = { normal: `${at}-400-normal.woff`, bold: `${at}-700-normal.woff` };
	return italics
		? { ...upright, italics: `${at}-400-italic.woff`, bolditalics: `${at}-700-italic.woff` }
		: { ...upright, italics: upright.normal, bolditalics: upright.bold };
};
const FONTS: Record<LetterFont, ReturnType<typeof font>> = {
	Atkinson: font('atkinson-hyperlegible-next', 'latin'),
	AtkinsonExt: font('atkinson-hyperlegible-next', 'latin-ext'),
	NotoGreek: font('noto-sans', 'greek', false),
	NotoCyrillic: font('noto-sans', 'cyrillic', false),
	NotoCyrillicExt: font('noto-sans', 'cyrillic-ext', false)
};

/** Its own files in memory, which its types leave out. */
const { virtualfs: virtualFiles } = pdfmake as unknown as {
	virtualfs: { writeFileSync: (name: string, bytes: Uint8Array) => void };
};
let ready = false;

/** Fonts of the app, unpacked once; nothing is fetched. */
function prepare(): void {
	if (ready) return;
	for (const file of new Set(Object.values(FONTS).flatMap((font) => Object.values(font))))
		virtualFiles.writeFileSync(file, fontOfWoff(readFileSync(join(FILES, file))));
	pdfmake.setFonts(FONTS);
	// Whatever a document names, nothing of this machine or of the net is read for it.
	pdfmake.setUrlAccessPolicy(() => false);
	pdfmake.setLocalAccessPolicy(() => false);
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
