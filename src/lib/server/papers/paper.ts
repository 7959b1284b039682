import type { Content, Margins } from 'pdfmake/interfaces';
import { entriesOf, type EntryAsked } from '../db/queries/history.ts';
import type { Context } from '../kernel/context.ts';
import { codeSvg } from '../web/codes.ts';
import { makePdf, type Signed, signedLine } from '../web/pdf.ts';

/** A table on a paper. */
export interface PaperTable {
	head: string[];
	rows: string[][];
	/** Of its columns; the first takes what is left. */
	widths: (number | '*' | 'auto')[];
}

/** What a paper says, whatever it is of. */
export interface Paper {
	/** What it is: Inspection, Bench test. */
	title: string;
	/** What it is about, such as a tag; also the name of its file. */
	about: string;
	/** What came of it, large. */
	outcome: string | null;
	reasons: string[];
	facts: [string, string][];
	/** A picture of 240 by 160. */
	svg?: string;
	tables: PaperTable[];
	/** What it does not say. */
	caution: string;
	/** The entry of the log that made it whole; null: it is of no one entry. */
	entry: EntryAsked | null;
}

/** The entry of the log that made something whole. */
async function entryOf(context: Context, asked: Paper['entry']) {
	if (!asked) return null;
	const [found] = await entriesOf(context.db, asked);
	return found ?? null;
}

/**
 * A paper as PDF: what it says, the entry of the log that it is of, and a code that leads to where it can be held
 * against the record.
 * @param origin address of the app
 */
export async function paperPdf(
	context: Context,
	paper: Paper,
	{ anchor, origin }: { anchor: Signed | null; origin: string }
): Promise<{ pdf: Uint8Array; name: string }> {
	const entry = await entryOf(context, paper.entry);
	const proof = entry ?? anchor;
	const code = proof && `${proof.seq}, ${proof.hash.slice(0, 16)}`;
	const tables: Content[] = paper.tables.map((table) => ({
		table: {
			headerRows: 1,
			widths: table.widths,
			body: [table.head.map((text) => ({ text, bold: true })), ...table.rows]
		},
		fontSize: 9.5,
		lineHeight: 1.05,
		layout: 'lightHorizontalLines',
		margin: [0, 10, 0, 0]
	}));
	const pdf = await makePdf({
		info: { title: `${paper.title}, ${paper.about}` },
		pageMargins: [44, 40, 44, 40],
		footer: (page, pages) => ({
			text: `${paper.title}, ${paper.about}${pages > 1 ? `, page ${page} of ${pages}` : ''}`,
			fontSize: 8,
			margin: [44, 8, 44, 0]
		}),
		content: [
			{
				columns: [
					{
						stack: [
							{ text: context.site.name },
							{ text: paper.title, fontSize: 20, bold: true },
							{ text: paper.about, fontSize: 14 }
						]
					},
					...(code
						? [
								{
									svg: codeSvg(
										'qrcode',
										`${origin}/records/verify?paper=${encodeURIComponent(code)}`
									),
									width: 72
								}
							]
						: [])
				]
			},
			...(paper.outcome
				? [
						{
							text: paper.outcome,
							fontSize: 17,
							bold: true,
							margin: [0, 8, 0, 2] as Margins
						}
					]
				: []),
			...paper.reasons.map((text) => ({ text, fontSize: 10.5 })),
			{
				table: { widths: [130, '*'], body: paper.facts },
				fontSize: 10.5,
				layout: 'lightHorizontalLines',
				margin: [0, 12, 0, 0]
			},
			...(paper.svg
				? [
						{
							svg: paper.svg,
							width: 420,
							margin: [0, 12, 0, 0] as Margins
						}
					]
				: []),
			...tables,
			{ text: paper.caution, fontSize: 9.5, margin: [0, 12, 0, 0] },
			...(entry
				? [
						{
							text: `Record: entry ${entry.seq}, ${entry.hash.slice(0, 16)}.`,
							fontSize: 9,
							margin: [0, 10, 0, 0] as Margins
						}
					]
				: []),
			...signedLine(anchor, context.site.timeZone)
		]
	});
	const file = `${paper.title}-${paper.about}`
		.toLowerCase()
		.replaceAll(/[^a-z0-9]+/g, '-')
		.replace(/-$/, '');
	return { pdf, name: `${file}.pdf` };
}
