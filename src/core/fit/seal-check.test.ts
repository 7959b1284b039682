import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FAMILIES } from '../data/families.ts';
import { SEAL_HOLD_S, type SealWay } from '../data/blocking.ts';
import { familiesWhere, recordOf } from '../data/family-records.ts';
import { donningCard } from './donning.ts';
import {
	FELT_BY_WAY,
	judgeSealCheck,
	type Felt,
	type SealAttempt,
	waysAsked
} from './seal-check.ts';

const felt = (...list: Felt[]): SealAttempt[] =>
	list.map((word) => ({ inlet: 'cartridges', felt: word }));
const outcome = (...list: Felt[]) => judgeSealCheck('half-mask', felt(...list)).outcome;

// Common practice of the trade; OSHA 1910.134 appendix B-1 has the same two checks (from memory).
describe('a seal check', () => {
	it.each([
		[[], 'try again'],
		[['pulled in and held'], 'seals'],
		[['air at the filter'], 'try again'],
		[['air at the edge'], 'try again'],
		[['not pulled in'], 'inspect'],
		[['air at the edge', 'pulled in and held'], 'seals'],
		[['air at the edge', 'air at the edge'], 'no entry'],
		[['air at the edge', 'air at the filter', 'air at the edge'], 'no entry'],
		[['air at the filter', 'air at the filter', 'air at the filter'], 'try again']
	] as [Felt[], string][])('%j: %s', (list, expected) => expect(outcome(...list)).toBe(expected));

	it('after two leaks at the face only a seal that held ends well', () => {
		const words = fc.constantFrom(...FELT_BY_WAY.in);
		fc.assert(
			fc.property(fc.array(words, { maxLength: 6 }), (list) => {
				const twice: Felt[] = ['air at the edge', ...list, 'air at the edge'];
				expect(outcome(...twice)).toBe('no entry');
			})
		);
	});

	it('both ways: breathing out lifts it, and what is felt one way is not felt the other', () => {
		const out = (...list: Felt[]) =>
			judgeSealCheck(
				'half-mask',
				list.map((word) => ({ inlet: 'cartridges', felt: word, way: 'out' as const }))
			);
		expect(out('lifted and held').outcome).toBe('seals');
		expect(out('lifted and held').reasons[0]?.text).toMatch(/no fit test/);
		expect(out('not lifted').outcome).toBe('inspect');
		expect(out('air at the edge', 'air at the edge').outcome).toBe('no entry');
		expect(() => out('air at the filter')).toThrow(/not felt this way/);
		expect(() => outcome('lifted and held')).toThrow(/not felt this way/);
		// Two leaks are two, whichever way each was found.
		const both: SealAttempt[] = [
			{ inlet: 'cartridges', felt: 'air at the edge', way: 'in' },
			{ inlet: 'cartridges', felt: 'air at the edge', way: 'out' }
		];
		expect(judgeSealCheck('half-mask', both).outcome).toBe('no entry');
	});

	// Site setting, work.md: both where the model allows both is the stricter school.
	it('asked both ways: each has to hold after the last leak, and the other is tried next', () => {
		const both = (...list: [SealWay, Felt][]) =>
			judgeSealCheck(
				'half-mask',
				list.map(([way, word]) => ({ inlet: 'cartridges', felt: word, way })),
				waysAsked(['in', 'out'], 'both')
			);
		const inHeld: [SealWay, Felt] = ['in', 'pulled in and held'];
		const outHeld: [SealWay, Felt] = ['out', 'lifted and held'];
		expect(both(inHeld)).toMatchObject({ outcome: 'try again', next: 'out' });
		expect(both(inHeld, outHeld).outcome).toBe('seals');
		expect(both(outHeld, inHeld).outcome).toBe('seals');
		expect(both(inHeld, ['out', 'air at the edge'])).toMatchObject({
			outcome: 'try again',
			next: 'in'
		});
		expect(both(inHeld, ['out', 'air at the edge'], outHeld).outcome).toBe('try again');
		expect(both(inHeld, ['out', 'air at the edge'], inHeld, outHeld).outcome).toBe('seals');
	});

	it('asked one way: the first that the model allows, and either is enough', () => {
		expect(waysAsked(['in', 'out'], 'one')).toEqual(['in']);
		expect(waysAsked(['out'], 'both')).toEqual(['out']);
		const once = judgeSealCheck(
			'half-mask',
			[{ inlet: 'cartridges', felt: 'lifted and held', way: 'out' }],
			['in']
		);
		expect(once.outcome).toBe('seals');
	});

	it('refuses an inlet that the mask cannot have', () => {
		expect(() => judgeSealCheck('half-mask', [{ inlet: 'hose', felt: 'not pulled in' }])).toThrow(
			/no such inlet/
		);
		expect(() => judgeSealCheck('airline', felt('not pulled in'))).toThrow(/no such inlet/);
	});

	it('knows how every family that it is done with is put on', () => {
		const families = FAMILIES.map((f) => f.family);
		for (const key of familiesWhere((f) => f.inlets.length > 0)) {
			expect(families).toContain(key);
			expect(recordOf(key).straps.length).toBeGreaterThan(1);
		}
	});
});

// Defaults as most makers say; common practice.
describe('how each kind is put on', () => {
	const card = (family: string) => recordOf(family).straps.join('\n');
	it.each([
		['half-mask', /Top pair first.*neck strap/],
		['full-face', /Lowest pair first, then upwards/],
		['canister-mask', /Temples first, then the top, then the bottom/],
		[
			'ba-set',
			/one shoulder, then the other\.\n.*Belt on the hips.*shoulder straps last\.\n.*Reach over the head/
		]
	])('%s', (family, order) => {
		expect(card(family)).toMatch(order);
		expect(card(family)).toMatch(/^Glasses, jewellery and hair/);
		expect(card(family)).toMatch(/Helmet last, over nothing that seals\.$/);
	});

	it('lets a mask hang only in clean air', () => {
		for (const family of ['half-mask', 'full-face'])
			expect(card(family)).toMatch(/only in clean air/);
	});
});

describe('a donning card', () => {
	it('is the model’s own where its maker says one, else the usual of the family, and says which', () => {
		expect(donningCard('half-mask', null)).toMatchObject({
			ofModel: false,
			straps: recordOf('half-mask').straps,
			holdSeconds: SEAL_HOLD_S
		});
		const own = { straps: ['Crown first.'], inlet: 'flat-pads' as const, holdSeconds: 6 };
		const card = donningCard('half-mask', own);
		expect(card).toMatchObject({ ofModel: true, straps: ['Crown first.'], holdSeconds: 6 });
		expect(card.inlets[0]).toBe('flat-pads');
		expect(card.ways).toEqual(['in', 'out']);
		expect(donningCard('half-mask', { ...own, ways: ['out'] }).ways).toEqual(['out']);
		expect([...card.inlets].sort()).toEqual([...recordOf('half-mask').inlets].sort());
		expect(donningCard('gas-tight-suit', null).inlets).toEqual([]);
	});
});
