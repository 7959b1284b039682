import { describe, expect, it } from 'vitest';
import { FAMILIES } from '../data/families.ts';
import { PROCEDURES, proceduresOf } from '../data/procedures.ts';
import { REJECT_CODES } from '../data/reject-codes.ts';
import { whatFailsAt } from './what-fails.ts';

describe('what can be found where', () => {
	const KNOWN = new Set(REJECT_CODES.map(({ code }) => code));

	it.each(FAMILIES.map(({ family }) => family))(
		'%s: every station has codes, each known, each once',
		(family) => {
			for (const { codes } of whatFailsAt(family, proceduresOf(family, PROCEDURES))) {
				expect(codes.length).toBeGreaterThan(2);
				expect(new Set(codes).size).toBe(codes.length);
				expect(codes.filter((code) => !KNOWN.has(code))).toEqual([]);
			}
		}
	);

	it('has every code that any procedure of the family rejects with', () => {
		for (const { family } of FAMILIES) {
			const offered = new Set(
				whatFailsAt(family, proceduresOf(family, PROCEDURES)).flatMap(({ codes }) => codes)
			);
			const asked = proceduresOf(family, PROCEDURES).flatMap(({ steps }) =>
				steps.flatMap(({ rejects }) => rejects)
			);
			expect(asked.filter((code) => !offered.has(code))).toEqual([]);
		}
	});
});
