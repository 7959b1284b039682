import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { MOST } from './operation.ts';
import { calculate, OPERATIONS } from './registry.ts';

type Schema = Record<string, unknown>;
/** Every part of a JSON schema with its path. */
const partsOf = (schema: Schema, path = ''): { path: string; part: Schema }[] => [
	{ path, part: schema },
	...['items', 'properties', 'anyOf', 'oneOf', 'allOf'].flatMap((key) => {
		const inner = schema[key];
		if (Array.isArray(inner))
			return inner.flatMap((one: Schema, i) => partsOf(one, `${path}/${key}/${i}`));
		if (!inner || typeof inner !== 'object') return [];
		if (key === 'items') return partsOf(inner as Schema, `${path}[]`);
		return Object.entries(inner as Record<string, Schema>).flatMap(([name, one]) =>
			partsOf(one, `${path}.${name}`)
		);
	})
];

describe('what one question may hold', () => {
	it.each(OPERATIONS.map((operation) => [operation.name, operation] as const))(
		'%s: every list and every word has a most',
		(_, { input }) => {
			const schema = z.toJSONSchema(input, { io: 'input', unrepresentable: 'any' }) as Schema;
			const unbounded = partsOf(schema).filter(
				({ part }) =>
					(part.type === 'array' && part.maxItems === undefined) ||
					(part.type === 'string' && part.maxLength === undefined && !part.enum && !part.const)
			);
			expect(unbounded.map(({ path }) => path)).toEqual([]);
		}
	);

	const own = (i: number) => ({
		substance: { name: `S${i}`, form: 'vapour', molarMassGPerMol: 100 },
		concentration: { value: 5, unit: 'ppm' },
		limit: { value: 10, unit: 'ppm' }
	});
	it('one more than the most is refused at its place, the most is answered', () => {
		const hazard = (n: number) =>
			calculate('hazard', {
				ruleSet: 'uk',
				contaminants: Array.from({ length: n }, (_, i) => own(i))
			});
		expect(hazard(MOST.contaminants).ok).toBe(true);
		expect(hazard(2000)).toMatchObject({
			ok: false,
			value: {
				error: {
					issues: [
						{ path: 'contaminants', message: expect.stringContaining('At most 30') as string }
					]
				}
			}
		});
	});

	it.each([
		[{ months: 1e9 }, 'rules[0].every'],
		[{ days: 1e12 }, 'rules[0].every']
	])('an interval of %o is refused, not run into', (every, path) => {
		const result = calculate('due', {
			rules: [{ every }],
			last: '2026-01-01',
			asOf: '2026-11-01'
		});
		expect(result).toMatchObject({ ok: false, value: { error: { code: 'invalid_input' } } });
		expect(JSON.stringify(result)).toContain(path);
	});
});
