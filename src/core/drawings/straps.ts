import { HEAD, MASK_ON } from './head.ts';
import { circle, mark, type Mark, path, smooth, words } from './mark.ts';

/** Where a strap runs on a head, from the mask backward. */
export type StrapPlace = 'top' | 'temple' | 'neck';

const NAMED: readonly [StrapPlace, RegExp][] = [
	['neck', /\b(lowest|lower|bottom|neck)\b/],
	['temple', /\b(temples?|middle|upwards)\b/],
	['top', /\b(top|brow|upper)\b/]
];

/** The order in which straps are drawn tight, read off a donning card; empty where it names none. */
export function strapOrder(lines: readonly string[]): StrapPlace[] {
	const line = lines
		.map((text) => text.toLowerCase())
		.find(
			(text) => /\b(first|then|last)\b/.test(text) && NAMED.some(([, name]) => name.test(text))
		);
	if (!line) return [];
	return NAMED.flatMap(([place, name]) => {
		const at = line.search(name);
		return at < 0 ? [] : [{ place, at }];
	})
		.sort((a, b) => a.at - b.at)
		.map(({ place }) => place);
}

const RUNS: Record<StrapPlace, [number, number][]> = {
	top: [
		[92, 62],
		[112, 34],
		[150, 26]
	],
	temple: [
		[88, 78],
		[126, 70],
		[172, 66]
	],
	neck: [
		[92, 106],
		[128, 112],
		[166, 112]
	]
};
const TO: Record<StrapPlace, [number, number]> = {
	top: [178, 16],
	temple: [206, 62],
	neck: [198, 116]
};

/** A head from the side, mask on, with an arrow and a number at each strap in its order. */
export function strapMarks(order: readonly StrapPlace[]): Mark[] {
	return [
		...HEAD,
		...MASK_ON,
		...order.flatMap((place, i) => {
			const run = RUNS[place];
			const to = TO[place];
			const from = run.at(-1) ?? to;
			const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
			const length = Math.hypot(dx, dy) || 1;
			const back = (side: number): [number, number] => [
				to[0] - (9 * dx) / length - (side * 6 * dy) / length,
				to[1] - (9 * dy) / length + (side * 6 * dx) / length
			];
			return [
				mark('bold', smooth(run)),
				mark('line', path(from, to)),
				mark('line', path(back(1), to, back(-1))),
				mark('body', circle(to[0] + (12 * dx) / length, to[1] + (12 * dy) / length, 10)),
				words(String(i + 1), to[0] + (12 * dx) / length, to[1] + (12 * dy) / length + 5, 14)
			];
		})
	];
}

const PLACE_WORDS: Record<StrapPlace, string> = {
	top: 'top',
	temple: 'temples',
	neck: 'lowest'
};

/** The order in words. */
export const strapWords = (order: readonly StrapPlace[]): string =>
	`Straps drawn tight in this order: ${order.map((place, i) => `${i + 1} ${PLACE_WORDS[place]}`).join(', ')}. Each pair together, straight back.`;
