import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { airwayOf, FAMILIES } from '../data/families.ts';
import { PROCEDURES, procedureFor, proceduresOf } from '../data/procedures.ts';
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

	// Levels and lists: common practice; the maker's card comes first.
	it('has a short look of six steps at most for every family, that proves nothing', () => {
		for (const { family } of FAMILIES) {
			const [look] = proceduresOf(family).filter((p) => p.levels?.includes('short look'));
			expect(look?.purpose, family).toBe('look');
			expect(look?.steps.length ?? 99, family).toBeLessThanOrEqual(6);
		}
	});

	it('ends a mask with a seal check, and puts the filters back after their gaskets', () => {
		for (const family of ['half-mask', 'full-face', 'canister-mask'])
			expect(
				procedureFor(family)
					.steps.slice(-2)
					.map((s) => s.key)
			).toContain('seal-check');
		for (const key of ['half-mask-pre-use', 'full-face-pre-use', 'half-mask-deep']) {
			const found = PROCEDURES.filter((p) => p.key === key).at(-1);
			const at = (step: string) => found?.steps.findIndex((s) => s.key === step) ?? -1;
			for (const side of ['left', 'right'])
				expect(at(`refit-${side}`)).toBeGreaterThan(at(`gasket-${side}`));
		}
	});

	it.each([
		['canister-mask', /plug|thread|clip|wet/],
		['ba-set', /bypass|valve open|double action|along its length/],
		['airline', /test gas|flow at the facepiece/i],
		['gas-tight-suit', /soles|grease|clean table/i],
		['full-face', /outsert|deflectors|baffle|kit counted|indicator window|arrow/i],
		['powered-blower', /indicator itself/i],
		['ventilated-suit', /airflow at the hood|before the zip/i]
	])('%s: the parts that a list must hold', (family, parts) => {
		const text = procedureFor(family)
			.steps.map((s) => `${s.title} ${s.good} ${s.action}`)
			.join('\n');
		for (const part of parts.source.split('|')) expect(text).toMatch(new RegExp(part, 'i'));
	});

	it('takes off and closes down what is worn, and puts suits on in two forms', () => {
		for (const family of [
			'half-mask',
			'full-face',
			'canister-mask',
			'powered-blower',
			'ba-set',
			'gas-tight-suit',
			'ventilated-suit'
		])
			expect(proceduresOf(family).some((p) => p.levels?.includes('after use'))).toBe(true);
		const masks = PROCEDURES.find((p) => p.key === 'half-mask-after-use');
		expect(masks?.steps.map((s) => s.action).join(' ')).toMatch(/Filters not touched/);
		const inside = PROCEDURES.find((p) => p.key === 'gas-tight-suit-donning-inside');
		const at = (step: string) => inside?.steps.findIndex((s) => s.key === step) ?? -1;
		expect(at('breathing')).toBeGreaterThan(at('mask'));
		expect(at('zip')).toBeGreaterThan(at('breathing'));
		expect(proceduresOf('gas-tight-suit').filter((p) => p.purpose === 'donning')).toHaveLength(2);
		expect(proceduresOf('ba-set').some((p) => p.purpose === 'change')).toBe(true);
	});

	it('walks the steps in the order of the air', () => {
		const order = airwayOf('half-mask').stations.map((s) => s.key);
		// Whole again, it ends with a seal check.
		expect(procedure.steps.at(-1)?.key).toBe('seal-check');
		const walked = procedure.steps.slice(0, -1).map((s) => order.indexOf(s.station));
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
		expect(nextStep(procedure, state, 'seal-check')?.key).toBe('prefilter-left');
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
			/1 of 18 steps have no answer yet/
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
