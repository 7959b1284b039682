import { describe, expect, it } from 'vitest';
import { FAMILIES } from '../data/families.ts';
import { donningCard } from '../fit/donning.ts';
import { strapMarks, strapOrder, strapWords } from './straps.ts';

describe('the order of straps', () => {
	it('is read off each donning card, and differs as the cards do', () => {
		const of = (family: string) => strapOrder(donningCard(family, null).straps);
		expect(of('half-mask')).toEqual(['top', 'neck']);
		expect(of('full-face')).toEqual(['neck', 'temple', 'top']);
		expect(of('canister-mask')).toEqual(['temple', 'top', 'neck']);
	});

	it('of a model stands over that of its family', () => {
		const card = donningCard('full-face', {
			straps: ['Middle pair first, then the top, then the bottom pair.'],
			inlet: null,
			holdSeconds: null
		});
		expect(strapOrder(card.straps)).toEqual(['temple', 'top', 'neck']);
	});

	it('is drawn as numbers in that order, and said', () => {
		expect(
			strapMarks(['neck', 'top'])
				.filter((one) => 'text' in one)
				.map((one) => one.text)
		).toEqual(['1', '2']);
		expect(strapWords(['neck', 'top'])).toContain('1 lowest, 2 top');
	});

	it('is left out where a card names none', () => {
		expect(strapOrder(['Helmet last, over nothing that seals.'])).toEqual([]);
		for (const { family } of FAMILIES)
			expect(new Set(strapOrder(donningCard(family, null).straps)).size).toBe(
				strapOrder(donningCard(family, null).straps).length
			);
	});
});
