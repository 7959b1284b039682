import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FOUND_KINDS, type Found, looksLikeTag, rank, scoreOf } from './rank.ts';

const found = (name: string, detail = '', kind: Found['kind'] = 'item'): Found => ({
	kind,
	name,
	detail,
	href: `/${name}`
});
const names = (list: readonly Found[], asked: string) => rank(list, asked).map(({ name }) => name);

describe('what a word finds', () => {
	it('is best what is called so, then what begins so, then a word of it, then a part', () =>
		expect(
			names([found('Overdryer'), found('Fish dryer'), found('Dryer 2'), found('Dryer')], 'dryer')
		).toEqual(['Dryer', 'Dryer 2', 'Fish dryer', 'Overdryer']));

	it('needs every word, in the name or in what is said of it', () => {
		const list = [found('HM-0101', 'Tern H1, Quay'), found('HM-0102', 'Tern H1, Shed')];
		expect(names(list, 'tern quay')).toEqual(['HM-0101']);
		expect(names(list, 'tern kite')).toEqual([]);
		expect(names(list, '')).toEqual([]);
	});

	it('of the same name comes in the order of the kinds', () =>
		expect(
			rank(
				[...FOUND_KINDS].reverse().map((kind) => found('Tern', '', kind)),
				'tern'
			).map(({ kind }) => kind)
		).toEqual(FOUND_KINDS));

	it('is found by any part of its own name, and never lost by upper case or blanks', () => {
		const word = fc.stringMatching(/^[a-z0-9]{3,12}$/);
		fc.assert(
			fc.property(word, fc.nat(2), (name, from) => {
				expect(scoreOf(found(name), ` ${name.slice(from).toUpperCase()} `)).toBeGreaterThan(0);
			})
		);
	});

	it.each([
		['HM-0999', true],
		['fp12', true],
		['cylinder', false],
		['new plan', false],
		['2026-11-24', false]
	])('“%s” could be a tag: %s', (text, is) => expect(looksLikeTag(text)).toBe(is));
});
