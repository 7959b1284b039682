import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plusDays } from '../plan/calendar.ts';
import { type Authorisation, JOBS, judgeCompetence } from './competence.ts';

const TODAY = '2026-11-27';
const held = (part: Partial<Authorisation> = {}): Authorisation => ({
	job: 'repair',
	families: [],
	modelIds: [],
	from: '2026-01-01',
	until: '2026-12-31',
	...part
});
const asked = { job: 'repair' as const, family: 'ba-set', modelId: 'm' };
const outcome = (list: Authorisation[], asOf = TODAY) => judgeCompetence(list, asked, asOf).outcome;

describe('an authorisation', () => {
	it.each([
		[{}, 'may'],
		[{ job: 'inspect' as const }, 'may not'],
		[{ families: ['ba-set', 'full-face'] }, 'may'],
		[{ families: ['half-mask'] }, 'may not'],
		[{ modelIds: ['m'] }, 'may'],
		[{ modelIds: ['n'] }, 'may not'],
		[{ until: TODAY }, 'may'],
		[{ until: plusDays(TODAY, -1) }, 'may not'],
		[{ from: plusDays(TODAY, 1) }, 'may not'],
		[{ until: null }, 'may']
	])('%j: %s', (part, says) => expect(outcome([held(part)])).toBe(says));

	it('says why not: lapsed, to come, or none at all', () => {
		const text = (list: Authorisation[]) => judgeCompetence(list, asked, TODAY).reasons[0]?.text;
		expect(text([held({ until: '2026-10-31' })])).toMatch(/lapsed on 31 Oct 2026/);
		expect(text([held({ from: '2027-02-01', until: null })])).toMatch(/begins on 1 Feb 2027/);
		expect(text([held({ job: 'wash' })])).toBe('Not authorised for this job: repair.');
	});

	it('of several the one that lasts longest is said', () => {
		const two = [held({ until: '2026-12-01' }), held({ until: '2027-05-01' })];
		expect(judgeCompetence(two, asked, TODAY).until).toBe('2027-05-01');
		expect(judgeCompetence([...two, held({ until: null })], asked, TODAY).until).toBeNull();
	});

	it('one more never takes anything away, a narrower one never gives more', () => {
		const day = fc.integer({ min: -400, max: 400 }).map((n) => plusDays(TODAY, n));
		const one = fc.record({
			job: fc.constantFrom(...JOBS),
			families: fc.subarray(['ba-set', 'half-mask']),
			modelIds: fc.subarray(['m', 'n']),
			from: day,
			until: fc.option(day, { nil: null })
		});
		fc.assert(
			fc.property(fc.array(one, { maxLength: 4 }), one, (list, more) => {
				const may = (of: Authorisation[]) => Number(outcome(of) === 'may');
				expect(may([...list, more])).toBeGreaterThanOrEqual(may(list));
				expect(may([{ ...more, families: ['ba-set'] }])).toBeLessThanOrEqual(
					may([{ ...more, families: [] }])
				);
			})
		);
	});
});
