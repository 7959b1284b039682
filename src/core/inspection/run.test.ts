import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { airwayOf, FAMILIES } from '../data/families.ts';
import { PROCEDURES, procedureFor } from '../data/procedures.ts';
import { holds, REJECT_CODES, rejectCode } from '../data/reject-codes.ts';
import { PARTS, repairOf } from '../data/repairs.ts';
import { stretches } from '../airway/airway.ts';
import { InputError } from '../verdict.ts';
import { checkAnswer, judgeRun, nextStep, runState, type AnswerEvent } from './run.ts';

const procedure = procedureFor('half-mask');
const good: AnswerEvent[] = procedure.steps.map((s) => ({ step: s.key, value: 'good' }));
const rejectAt = (step: string, code: string): AnswerEvent[] => [
	...good,
	{ step, value: 'reject', code }
];

describe('the data of inspections', () => {
	it('gives every station of every family a step, and every step a reject', () => {
		for (const family of FAMILIES) {
			const { steps } = procedureFor(family.family);
			for (const station of family.stations)
				expect(
					steps.filter((s) => s.station === station.key),
					station.key
				).not.toHaveLength(0);
			for (const step of steps) expect(step.rejects.length, step.key).toBeGreaterThan(0);
		}
	});

	it('names only codes, stations and repairs that exist', () => {
		for (const p of PROCEDURES)
			for (const step of p.steps) {
				expect(airwayOf(p.family).stations.map((s) => s.key)).toContain(step.station);
				for (const code of step.rejects) expect(() => rejectCode(code)).not.toThrow();
			}
		for (const code of REJECT_CODES) {
			const repair = repairOf(code.repair);
			expect(repair.proof.length).toBeGreaterThan(0);
			for (const part of repair.parts) expect(PARTS).toHaveProperty(part.part);
		}
	});

	it('walks the steps in the order of the air', () => {
		const order = airwayOf('half-mask').stations.map((s) => s.key);
		const walked = procedure.steps.map((s) => order.indexOf(s.station));
		expect(walked).toEqual([...walked].sort((a, b) => a - b));
	});

	it('draws left and right as branches of one length', () => {
		const line = stretches(airwayOf('half-mask').stations);
		expect(line[0]).toMatchObject({ kind: 'branches' });
		if (line[0]?.kind === 'branches') expect(line[0].left).toHaveLength(line[0].right.length);
		expect(line.slice(1).every((s) => s.kind === 'single')).toBe(true);
	});
});

describe('a running inspection', () => {
	it('lets the last answer to a step stand, and clears on undo', () => {
		const state = runState(procedure, [
			{ step: 'label-read', value: 'good' },
			{ step: 'label-read', value: 'reject', code: 'WET' },
			{ step: 'bag-state', value: 'good' },
			{ step: 'bag-state', value: 'cleared' }
		]);
		expect(state.answers.get('label-read')?.code).toBe('WET');
		expect(state).toMatchObject({ done: 1, worst: 'repair', complete: false });
	});

	it('goes on to the next step without an answer, round to the first', () => {
		const state = runState(procedure, good.slice(1, 4));
		expect(nextStep(procedure, state, null)?.key).toBe('prefilter-left');
		expect(nextStep(procedure, state, 'prefilter-left')?.key).toBe(procedure.steps[4]?.key);
		expect(nextStep(procedure, state, 'bag-state')?.key).toBe('prefilter-left');
		expect(nextStep(procedure, runState(procedure, good), null)).toBeUndefined();
	});

	it.each([
		[good, 'pass'],
		[rejectAt('exhalation-disc', 'CURL'), 'fail'],
		[rejectAt('exhalation-disc', 'DIRTY'), 'fail'],
		[rejectAt('exhalation-disc', 'DUST'), 'pass, watch'],
		[rejectAt('bag-state', 'BAG'), 'pass']
	])('judges by the most serious reject', (events, outcome) =>
		expect(judgeRun(procedure, events, 300).outcome).toBe(outcome)
	);

	it('flags a run that nobody can have looked through, without changing its verdict', () => {
		const fast = judgeRun(procedure, good, 10);
		expect(fast.outcome).toBe('pass');
		expect(fast.reasons.map((r) => r.rule)).toContain('inspection.too-fast');
		expect(judgeRun(procedure, good, 60).reasons.map((r) => r.rule)).not.toContain(
			'inspection.too-fast'
		);
	});

	it('refuses to judge while steps are open', () => {
		expect(() => judgeRun(procedure, good.slice(1), 300)).toThrow(
			/1 of 15 steps have no answer yet/
		);
	});

	it.each([
		[{ step: 'nowhere', value: 'good' }, 'step'],
		[{ step: 'facepiece-body', value: 'not fitted' }, 'value'],
		[{ step: 'facepiece-body', value: 'reject', code: 'RATTLE' }, 'code'],
		[{ step: 'facepiece-body', value: 'reject' }, 'code'],
		[{ step: 'facepiece-body', value: 'good', code: 'CRK' }, 'code']
	] as [AnswerEvent, string][])('refuses the answer %o', (answer, path) => {
		try {
			checkAnswer(procedure, answer);
			expect.unreachable('it was accepted');
		} catch (error) {
			expect(error).toBeInstanceOf(InputError);
			expect((error as InputError).path).toBe(path);
		}
	});

	it('never passes a run with a standing reject that holds', () => {
		const step = fc.constantFrom(...procedure.steps);
		const answer = step.chain((s) =>
			fc.oneof(
				fc.constant<AnswerEvent>({ step: s.key, value: 'good' }),
				fc
					.constantFrom(...s.rejects)
					.map<AnswerEvent>((code) => ({ step: s.key, value: 'reject', code }))
			)
		);
		fc.assert(
			fc.property(fc.array(answer, { maxLength: 40 }), (changes) => {
				const events = [...good, ...changes];
				const standing = [...runState(procedure, events).answers.values()];
				const holding = standing.some((a) => a.code && holds(rejectCode(a.code).severity));
				expect(judgeRun(procedure, events, 300).outcome === 'fail').toBe(holding);
			})
		);
	});
});
