import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findSubstance, SHIPPED } from '../data/substances.ts';
import type { Substance } from '../data/substance.ts';
import { site } from '../verdict.ts';
import { merged, siteLibrary } from './library.ts';
import { casHolds, disagreements, keyOf } from './record.ts';

const toluene = findSubstance('toluene');
if (!toluene) throw new Error('no toluene');
const messages = (part: Partial<Substance>) =>
	disagreements({ ...toluene, ...part }).map((d) => `${d.field}: ${d.message}`);

describe('a CAS number', () => {
	// Published: CAS Registry numbers of water, caffeine and carbon dioxide; from memory.
	it.each(['7732-18-5', '58-08-2', '124-38-9'])('%s holds', (cas) =>
		expect(casHolds(cas)).toBe(true)
	);
	it.each(['7732-18-4', '58-08', '1-2-3', 'water', ''])('“%s” does not', (cas) =>
		expect(casHolds(cas)).toBe(false)
	);
	it('notices any single wrong digit', () => {
		const digits = fc.tuple(fc.integer({ min: 0, max: 6 }), fc.integer({ min: 1, max: 9 }));
		fc.assert(
			fc.property(digits, ([at, by]) => {
				const cas = '7732185';
				const changed = [...cas]
					.map((d, i) => (i === at ? String((Number(d) + by) % 10) : d))
					.join('');
				const written = `${changed.slice(0, 4)}-${changed.slice(4, 6)}-${changed.slice(6)}`;
				const weight = at === 6 ? 1 : 6 - at;
				// A digit that weighs ten would slip through; none of these does, save where weight × change is a multiple of ten.
				if ((weight * by) % 10 !== 0) expect(casHolds(written)).toBe(false);
			})
		);
	});
});

describe('what contradicts itself', () => {
	it.each([
		[{ cas: '108-88-4' }, /^cas: .*check digit/],
		[{ molarMassGPerMol: 78 }, /^molarMassGPerMol: C7H8 weighs 92\.141/],
		[{ boilingPointC: 140 }, /^antoine: At the boiling point of 140 °C/],
		[{ vapourPressureMmHg: 40 }, /^antoine: At 20 °C/],
		[
			{ limits: { uk: { twa: 50, short: 20, unit: 'ppm' as const } } },
			/^limitUk: .*below the mean/
		],
		[
			{ limits: { us: { twa: 900, unit: 'ppm' as const } } },
			/^limitUs: .*immediate danger value of 500/
		],
		[{ rel: { twa: 600, unit: 'ppm' as const } }, /^rel: /],
		[{ en: 'AX' as const }, /^en: Type AX is for boiling points up to 65/],
		[
			{ en: 'A' as const, boilingPointC: 50, antoine: undefined },
			/^en: Type A is for boiling points above 65/
		]
	])('%o', (part, expected) => expect(messages(part).join('\n')).toMatch(expected));

	it('is nothing in the shipped one', () => expect(messages({})).toEqual([]));
});

describe('the library of a site', () => {
	const origin = site('measured here');
	it('lays corrections over the shipped values and keeps the rest', () => {
		const record = {
			limits: { uk: { twa: 20, unit: 'ppm' as const } },
			origins: { limitUk: origin }
		};
		const corrected = merged('toluene', { key: 'toluene', own: false, record });
		expect(corrected?.limits).toEqual({ ...toluene.limits, ...record.limits });
		expect(corrected?.idlh).toEqual(toluene.idlh);
		expect(corrected?.origins?.limitUk).toBe(origin);
		expect(merged('toluene', undefined)).toEqual(toluene);
		expect(merged('nothing', undefined)).toBeUndefined();
	});

	it('finds its own beside the shipped ones, and is the shipped one where nothing was changed', () => {
		const own = {
			...toluene,
			key: 'mine',
			name: 'Mine',
			cas: undefined,
			synonyms: ['tank mix']
		} as Substance;
		const library = siteLibrary([{ key: 'mine', own: true, record: own }]);
		expect(library.find('Tank Mix')?.key).toBe('mine');
		expect(library.find('108-88-3')?.key).toBe('toluene');
		expect(library.all).toHaveLength(SHIPPED.all.length + 1);
		expect(siteLibrary([])).toBe(SHIPPED);
	});

	it('makes keys of any name', () => {
		expect(keyOf('  Ölnebel & Co. (2 %) ')).toBe('olnebel-co-2');
		fc.assert(
			fc.property(fc.string(), (name) => {
				expect(keyOf(name)).toMatch(/^[a-z0-9-]*$/);
			})
		);
	});
});
