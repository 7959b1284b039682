import type { Content } from 'pdfmake/interfaces';
import type { CardPicture } from '../../../core/drawings/card.ts';
import { svgOf } from '../../../core/drawings/svg.ts';

const WIDTH = 96;

const cell = (marks: CardPicture['marks'], bold: string, says: string): Content => ({
	stack: [
		{ svg: svgOf(marks), width: WIDTH },
		{ text: [{ text: bold, bold: true }, says], fontSize: 8.5, lineHeight: 1.1 }
	]
});

/** Drawings of a card for its paper, two to a line: how it is done, beside how it is done wrongly. */
export function pictured(pictures: readonly CardPicture[]): Content[] {
	const cells = pictures.flatMap(({ says, marks, wrong }) => [
		cell(marks, 'So. ', says),
		wrong ? cell(wrong.marks, 'Not so. ', wrong.says) : { text: '' }
	]);
	const rows = Array.from({ length: Math.ceil(cells.length / 4) }, (_, i) => {
		const row = cells.slice(4 * i, 4 * i + 4);
		return [...row, ...Array.from({ length: 4 - row.length }, () => ({ text: '' }))];
	});
	return rows.length
		? [
				{
					table: { widths: ['*', '*', '*', '*'], body: rows, dontBreakRows: true },
					layout: 'noBorders',
					margin: [0, 8, 0, 0]
				}
			]
		: [];
}
