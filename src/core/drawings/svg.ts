import type { Ink, Mark } from './mark.ts';

const LOOK: Record<Ink, string> = {
	line: 'fill="none" stroke="#111" stroke-width="2"',
	bold: 'fill="none" stroke="#111" stroke-width="4"',
	thin: 'fill="none" stroke="#777" stroke-width="1.2"',
	dash: 'fill="none" stroke="#111" stroke-width="2" stroke-dasharray="5 6"',
	body: 'fill="#fff" stroke="#111" stroke-width="2"',
	shade: 'fill="#ccc" stroke="#111" stroke-width="2"',
	solid: 'fill="#111" stroke="#111" stroke-width="1"'
};

const escaped = (text: string) => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** A drawing as a document of its own, in ink on white: for paper. */
export const svgOf = (marks: readonly Mark[]): string =>
	`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 240 160" width="240" height="160">${marks
		.map((one) =>
			'd' in one
				? `<path d="${one.d}" ${LOOK[one.ink]} stroke-linecap="round" stroke-linejoin="round"/>`
				: `<text x="${one.x}" y="${one.y}" font-size="${one.size}" text-anchor="middle" font-family="Atkinson" fill="#111">${escaped(one.text)}</text>`
		)
		.join('')}</svg>`;
