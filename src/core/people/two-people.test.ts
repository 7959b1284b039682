import { describe, expect, it } from 'vitest';
import { procedureFor } from '../data/procedures.ts';
import { anotherApproves, partOf, releasedByAnother } from './two-people.ts';

const HALF = procedureFor('half-mask');
const steps = HALF.steps.map((step, i) => ({ ...step, secondPerson: i === 0 }));
const [witnessed = '', ordinary = ''] = steps.map((step) => step.key);
const part = (person: string, answers: [step: string, by: string][]) =>
	partOf(
		{ steps },
		'ilse',
		answers.map(([step, answeredBy]) => ({ step, answeredBy })),
		person
	);

describe('two persons at one list', () => {
	it.each([
		['who started it', 'ilse', [], { first: true, second: false }],
		['who only came by', 'odd', [], { first: false, second: false }],
		['who answered any ordinary step', 'odd', [[ordinary, 'odd']], { first: true, second: false }],
		['who answered the witnessed one', 'odd', [[witnessed, 'odd']], { first: false, second: true }],
		['whose colleague answered', 'odd', [[ordinary, 'tove']], { first: false, second: false }]
	] as const)('%s', (_, person, answers, expected) => {
		expect(part(person, answers as unknown as [string, string][])).toEqual(expected);
	});
});

describe('who approves and who releases', () => {
	const plan = { createdBy: 'ilse', changedBy: 'tove' };
	const asks = { twoPeople: true };
	const waives = { twoPeople: false };

	it('a plan is approved by another than who made it or changed it last, where the site asks', () => {
		expect(['ilse', 'tove', 'bram'].map((who) => anotherApproves(asks, plan, who))).toEqual([
			true,
			true,
			false
		]);
		expect(anotherApproves(waives, plan, 'ilse')).toBe(false);
	});

	it('a repair is released by another, which a site can waive but for a stop fault among many', () => {
		expect(releasedByAnother(asks, [{ severity: 'watch' }])).toBe(true);
		expect(releasedByAnother(waives, [{ severity: 'watch' }, { severity: 'note' }])).toBe(false);
		expect(releasedByAnother(waives, [{ severity: 'watch' }, { severity: 'stop' }])).toBe(true);
	});
});
