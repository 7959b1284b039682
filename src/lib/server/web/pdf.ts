import { join } from 'node:path';
import type { Content, Margins, TDocumentDefinitions } from 'pdfmake/interfaces';
import pdfmake from 'pdfmake';
import { readableMoment } from '../../../core/plan/moments.ts';

const FONTS = join(
	process.cwd(),
	'node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin'
);

let ready = false;

/** Fonts of the app; nothing is fetched. */
function prepare(): void {
	if (ready) return;
	pdfmake.setFonts({
		Atkinson: {
			normal: `${FONTS}-400-normal.woff`,
			bold: `${FONTS}-700-normal.woff`,
			italics: `${FONTS}-400-italic.woff`,
			bolditalics: `${FONTS}-700-italic.woff`
		}
	});
	pdfmake.setUrlAccessPolicy(() => false);
	// Of this machine it reads its fonts and nothing else, whatever a document names.
	pdfmake.setLocalAccessPolicy((path) => path.startsWith(FONTS));
	ready = true;
}

/** A PDF of a document, in the app's own type. */
export async function makePdf(document: TDocumentDefinitions): Promise<Uint8Array> {
	prepare();
	const made = pdfmake.createPdf({
		pageSize: 'A4',
		pageMargins: [48, 48, 48, 48],
		...document,
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
