import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { canonicalJson } from './canonical-json.ts';
import { sha256 } from './sha256.ts';

/** The way in which the first hashes were written: those have to hold. */
const asFirst = (value: unknown): string =>
	JSON.stringify(value, (_, part: unknown) => {
		if (part instanceof Uint8Array) return sha256(part);
		return part && typeof part === 'object' && !Array.isArray(part)
			? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
			: part;
	});

describe('JSON in one order', () => {
	it('is the same whatever order the keys were set in', () => {
		expect(canonicalJson({ b: 1, a: { d: [2, { f: 3, e: 4 }], c: null } })).toBe(
			'{"a":{"c":null,"d":[2,{"e":4,"f":3}]},"b":1}'
		);
	});

	it('gives dates as texts, bytes by their hash, and leaves out what JSON leaves out', () => {
		const bytes = new Uint8Array([1, 2, 3]);
		const value = {
			at: new Date('2026-11-24T08:00:00.123Z'),
			bytes,
			missing: undefined,
			list: [undefined, () => 1],
			none: Number.NaN,
			10: 'ten',
			9: 'nine'
		};
		expect(canonicalJson(value)).toBe(
			`{"9":"nine","10":"ten","at":"2026-11-24T08:00:00.123Z","bytes":"${sha256(bytes)}","list":[null,null],"none":null}`
		);
		expect(canonicalJson(value)).toBe(asFirst(value));
		expect(canonicalJson(Buffer.from('ab'))).toBe(asFirst(Buffer.from('ab')));
		expect(canonicalJson(undefined)).toBe('undefined');
	});

	it('is the text that hashes have stood on from the beginning, for whatever content', () => {
		const anything = fc.anything({
			withDate: true,
			withNullPrototype: true,
			withTypedArray: false,
			withObjectString: true
		});
		fc.assert(
			fc.property(anything, (value) => {
				expect(canonicalJson(value)).toBe(String(asFirst(value)));
			}),
			{ numRuns: 2000 }
		);
	});
});
