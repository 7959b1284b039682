import { describe, expect, it } from 'vitest';
import { SUBSTANCES } from '../../../core/data/substances.ts';
import { Refusal } from '../kernel/refusal.ts';
import { editOf, substanceFields as fields, typedOf } from './substance-form.ts';

/** What a page sends of a form that nobody touched. */
const sent = (typed: Record<string, unknown>) => ({
	requestId: crypto.randomUUID(),
	version: '0',
	why: 'looked at',
	...Object.fromEntries(
		Object.entries(typed).flatMap(([name, value]) =>
			typeof value === 'boolean'
				? value
					? [[name, 'on']]
					: []
				: [[name, Array.isArray(value) ? value : String(value ?? '')]]
		)
	)
});
const known = ([, value]: [string, unknown]) =>
	value !== undefined && !(Array.isArray(value) && value.length === 0);
const plain = (record: object) => Object.fromEntries(Object.entries(record).filter(known));

describe('the form of a substance', () => {
	it('opened and kept as it stands changes nothing, for every shipped substance', () => {
		expect(SUBSTANCES.length).toBeGreaterThan(150);
		for (const substance of SUBSTANCES) {
			const kept = plain(editOf(fields.parse(sent(typedOf(substance)))));
			for (const [field, value] of Object.entries(kept))
				expect(plain(substance)[field], `${substance.key}: ${field}`).toEqual(value);
		}
	});

	it('says every field that is wrong at once', () => {
		const { error } = fields.safeParse({
			...sent(typedOf(SUBSTANCES[0]!)),
			molarMassGPerMol: 'heavy',
			boilingPointC: 'hot',
			why: ' '
		});
		expect(error?.issues.map((issue) => issue.path.join('.')).sort()).toEqual([
			'boilingPointC',
			'molarMassGPerMol',
			'why'
		]);
	});

	it.each([
		['limitUk', '50-100'],
		['limitUs', 'c'],
		['rel', 'some'],
		['idlh', 'plenty']
	])('refuses %s “%s” at its field', (path, text) => {
		const typed = { ...typedOf(SUBSTANCES[0]!), [path]: text };
		const form = fields.parse(sent(typed));
		expect(() => editOf(form)).toThrow(Refusal);
		expect(() => editOf(form)).toThrow(expect.objectContaining({ path }) as Error);
	});

	it('takes another unit behind a limit, and a comma for a point', () => {
		const edit = editOf(
			fields.parse(
				sent({ ...typedOf(SUBSTANCES[0]!), unit: 'ppm', limitUk: '0,02 mg/m3', rel: 'c10' })
			)
		);
		expect(edit.limits?.uk).toEqual({ twa: 0.02, unit: 'mg/m3' });
		expect(edit.rel).toMatchObject({ short: 10, shortKind: 'ceiling', unit: 'ppm' });
	});
});
