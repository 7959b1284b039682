import { describe, expect, it } from 'vitest';
import { BLOCKING } from '../data/blocking.ts';
import { PROTECTION_KINDS } from '../data/protection-factors.ts';
import { MISTAKE_QUESTIONS, SEAL_QUESTIONS } from '../drill/short-questions.ts';
import { cardPictures } from './card.ts';
import { HANDS } from './hands.ts';
import { svgOf } from './svg.ts';
import { WORN } from './worn.ts';
import { words } from './mark.ts';

describe.each(Object.entries({ ...HANDS, ...WORN }))('what is done: %s', (_, done) => {
	it('differs where it is done wrongly, in the drawing and in words', () => {
		expect(svgOf(done.draw(true))).not.toBe(svgOf(done.draw(false)));
		expect(done.right).not.toBe(done.wrong);
		for (const says of [done.right, done.wrong]) expect(says).toMatch(/^[A-Z].{12,}\.$/);
	});
	it('stays on its paper', () => {
		for (const rightly of [true, false])
			for (const one of done.draw(rightly)) {
				if (!('d' in one)) continue;
				// Only curves by points, whose numbers are places; arcs and rounded boxes also hold radii.
				if (/[ahvHV]/.test(one.d)) continue;
				const numbers = one.d.match(/-?[\d.]+/g)?.map(Number) ?? [];
				expect(Math.max(...numbers)).toBeLessThan(250);
				expect(Math.min(...numbers)).toBeGreaterThan(-10);
			}
	});
});

it('hands are drawn for every way in which an inlet is blocked', () => {
	expect(Object.keys(HANDS).sort()).toEqual([...Object.keys(BLOCKING), 'out'].sort());
});

describe('the drawings of a card', () => {
	it('speak of the edge wherever the kind seals on a face, and of the clip only on dust masks', () => {
		for (const kind of PROTECTION_KINDS) {
			const said = cardPictures(kind.key).map(({ says }) => says);
			expect(said.includes(WORN.stubble.right), kind.key).toBe(kind.tightFitting);
			expect(said.includes(WORN['upside-down'].right), kind.key).toBe(kind.catches === 'particles');
			expect(said.includes(WORN['two-kinds'].right), kind.key).toBe((kind.filters ?? 1) > 1);
		}
	});
	it('show the hands on a half mask', () => {
		const said = cardPictures('half-mask').map(({ says }) => says);
		expect(said).toContain(HANDS.cartridges.right);
	});
	it('are none of a kind that is not known', () => {
		expect(cardPictures('snorkel')).toEqual([]);
	});
});

it('what is asked about wearing shows what it asks about', () => {
	expect(MISTAKE_QUESTIONS.filter(({ worn }) => worn).length).toBeGreaterThan(5);
	expect(SEAL_QUESTIONS.filter(({ hands, worn }) => hands || worn).length).toBeGreaterThan(5);
});

it('a drawing for paper keeps signs that mean something in it', () => {
	expect(svgOf([words('a<b & "c"', 1, 2)])).toContain('a&#60;b &#38; &#34;c&#34;');
});
