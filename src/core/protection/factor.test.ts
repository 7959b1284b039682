import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PROTECTION_KINDS } from '../data/protection-factors.ts';
import { assignedFactor, requiredFactor, type FactorUse } from './factor.ts';

const kind = (key: string) => {
	const found = PROTECTION_KINDS.find((k) => k.key === key);
	if (!found) throw new Error(`no kind ${key}`);
	return found;
};
const use = (part: Partial<FactorUse> = {}): FactorUse => ({
	gas: true,
	particles: false,
	particleClass: 'P3',
	fitTest: 'quantitative',
	...part
});

describe('assigned protection factors', () => {
	// Published: 29 CFR 1910.134 table 1, from memory.
	it.each([
		['half-mask', 10],
		['full-face', 50],
		['powered-full-face', 1000],
		['powered-hood', 25],
		['airline-half-mask', 50],
		['airline-full-face', 1000],
		['ba', 10000],
		['ba-demand', 50]
	])('US %s is %i', (key, factor) => expect(assignedFactor(kind(key), 'us', use())).toBe(factor));

	// Published: HSG53 and EN 529 annex C, from memory.
	it.each([
		['half-mask', { gas: true }, 10],
		['half-mask', { gas: false, particles: true, particleClass: 'P1' }, 4],
		['half-mask', { gas: false, particles: true, particleClass: 'P2' }, 10],
		['half-mask', { gas: false, particles: true, particleClass: 'P3' }, 20],
		['half-mask', { gas: true, particles: true, particleClass: 'P3' }, 10],
		['full-face', { gas: true }, 20],
		['full-face', { gas: false, particles: true, particleClass: 'P3' }, 40],
		['airline-full-face', {}, 2000],
		['ba', {}, 2000]
	] as const)('UK %s with %o is %i', (key, part, factor) =>
		expect(assignedFactor(kind(key), 'uk', use(part))).toBe(factor)
	);

	// Published: 29 CFR 1910.134(f)(6); UK: common practice, from memory.
	it('limits a full-face mask with a qualitative fit test', () => {
		expect(assignedFactor(kind('full-face'), 'us', use({ fitTest: 'qualitative' }))).toBe(10);
		expect(
			assignedFactor(kind('full-face'), 'uk', use({ fitTest: 'qualitative' }))
		).toBeUndefined();
	});

	it('credits a filtering facepiece with nothing against gas', () => {
		expect(assignedFactor(kind('filtering-facepiece'), 'us', use())).toBeUndefined();
	});

	it('rounds up to the next factor and never down', () => {
		expect(requiredFactor(10, 'us')).toBe(10);
		expect(requiredFactor(10.0001, 'us')).toBe(25);
		expect(requiredFactor(9.2, 'uk')).toBe(10);
		expect(requiredFactor(10001, 'us')).toBeUndefined();
		fc.assert(
			fc.property(
				fc.double({ min: 0, max: 12000, noNaN: true }),
				fc.double({ min: 0, max: 12000, noNaN: true }),
				(a, b) => {
					const [low, high] = [Math.min(a, b), Math.max(a, b)];
					const factor = (r: number) => requiredFactor(r, 'uk') ?? Infinity;
					expect(factor(low)).toBeLessThanOrEqual(factor(high));
					expect(factor(low)).toBeGreaterThanOrEqual(low);
				}
			)
		);
	});
});
