import fc from 'fast-check';
import { createEmptyCard, fsrs, generatorParameters, Rating } from 'ts-fsrs';
import { describe, expect, it } from 'vitest';
import { canLookBad, subjectsAt } from '../drawings/at.ts';
import { SUBJECTS } from '../drawings/subjects.ts';
import { FAMILIES } from '../data/families.ts';
import { PROCEDURES } from '../data/procedures.ts';
import { runState } from '../inspection/run.ts';
import { rankCorrelation } from '../stats/rank.ts';
import { DRILL_LEVELS, handOver, rightAnswer } from './hand-over.ts';
import { canBeMet, kindsOf } from './kinds.ts';
import { afterMeeting, AIM, chanceToFind, suits } from './rating.ts';
import { meetAgain, remembered } from './schedule.ts';
import { type DrillAnswer, judgeExam, metOf, scoreDrill } from './score.ts';
import { SHORT_TEST_KEYS } from './short-test-names.ts';
import { questionsOf } from './short-tests.ts';
import { addSignals, NO_SIGNALS, sensitivity } from './signal-detection.ts';
import { Chance } from '../stats/chance.ts';
import { drilledTrace, TRACE_ANSWERS, traceMarks } from './traces.ts';
import { simulatedDrill } from './trainees.ts';

const INSPECTIONS = PROCEDURES.filter(({ purpose }) => (purpose ?? 'inspection') === 'inspection');
const HALF_MASK = INSPECTIONS.find(({ key }) => key === 'half-mask-pre-use');
if (!HALF_MASK) throw new Error('no half mask');
const seeds = fc.integer({ min: 1, max: 2 ** 31 - 1 });
const levels = fc.constantFrom(...DRILL_LEVELS);
const procedures = fc.constantFrom(...INSPECTIONS);

/** What somebody answers who sees everything. */
const perfect = (procedure: (typeof INSPECTIONS)[number], handed: ReturnType<typeof handOver>) =>
	procedure.steps.filter(canBeMet).map((step): DrillAnswer => {
		const code = rightAnswer(procedure, handed, step);
		return {
			step: step.key,
			value: code ? 'reject' : 'good',
			code,
			readings: handed.readings[step.key] ?? null
		};
	});

describe('an item that is handed over', () => {
	it('is the same for the same seed, carries only faults that its steps list, and no more than its level', () => {
		fc.assert(
			fc.property(procedures, seeds, levels, (procedure, seed, level) => {
				const handed = handOver({ procedure, seed, level, canBeNear: () => true });
				expect(handOver({ procedure, seed, level, canBeNear: () => true })).toEqual(handed);
				expect(handed.faults.length).toBeLessThanOrEqual(level + 1);
				if (level === 1) expect(handed.faults).toHaveLength(1);
				for (const { step: key, code } of handed.faults) {
					const step = procedure.steps.find((one) => one.key === key);
					expect(step && (step.rejects.includes(code) || step.reading)).toBeTruthy();
					expect(step && rightAnswer(procedure, handed, step)).toBe(code);
					expect(handed.near).not.toContain(key);
				}
			})
		);
	});

	it('reads good where it is good or nearly not, and bad where it is bad', () => {
		fc.assert(
			fc.property(procedures, seeds, levels, (procedure, seed, level) => {
				const handed = handOver({ procedure, seed, level, canBeNear: () => true });
				for (const step of procedure.steps.filter(({ reading }) => reading))
					expect(rightAnswer(procedure, handed, step)).toBe(
						handed.faults.find((fault) => fault.step === step.key)?.code ?? null
					);
			})
		);
	});

	it('brings what should be met next: at the plainest level always, else most of the time', () => {
		const kind = kindsOf(HALF_MASK).find((one) => one.endsWith('exhalation/CURL')) ?? '';
		const met = Array.from({ length: 200 }, (_, seed) =>
			handOver({ procedure: HALF_MASK, seed: seed + 1, level: 1, favour: [kind] })
		).filter(({ faults }) => faults[0]?.code === 'CURL' && faults[0].step === 'exhalation-disc');
		expect(met).toHaveLength(200);
		const mixed = Array.from({ length: 300 }, (_, seed) =>
			handOver({ procedure: HALF_MASK, seed: seed + 1, level: 2, favour: [kind] })
		).filter(({ faults }) => faults.length > 0);
		const brought = mixed.filter(({ faults }) =>
			faults.some(({ step, code }) => code === 'CURL' && step === 'exhalation-disc')
		);
		expect(brought.length).toBeGreaterThan(mixed.length * 0.6);
	});

	it('of every family has something to find and something to look at', () => {
		for (const { family } of FAMILIES) {
			const own = INSPECTIONS.filter((one) => one.family === family);
			expect([family, own.length > 0]).toEqual([family, true]);
			for (const procedure of own) expect(kindsOf(procedure).length).toBeGreaterThan(5);
		}
	});

	it('is near a fault only where a drawing has such a thing', () => {
		const near = HALF_MASK.steps.filter((step) => canLookBad('half-mask', step));
		expect(near.length).toBeGreaterThan(5);
		for (const step of near)
			expect(subjectsAt('half-mask', step).some((key) => SUBJECTS[key].near)).toBe(true);
	});
});

describe('the score', () => {
	it('is full for who sees everything, whatever is handed over', () => {
		fc.assert(
			fc.property(procedures, seeds, levels, (procedure, seed, level) => {
				const handed = handOver({ procedure, seed, level });
				const score = scoreDrill(procedure, handed, perfect(procedure, handed), 200);
				expect(score).toMatchObject({
					index: 100,
					missed: 0,
					falseRejects: 0,
					wrongCodes: 0,
					misread: 0
				});
				expect(score.found).toBe(handed.faults.length);
				expect(judgeExam(score).passed).toBe(true);
				expect(metOf(score).every(({ met }) => met === 'found')).toBe(true);
			})
		);
	});

	it('puts who rejects everything below who rejects nothing wrongly and finds half', () => {
		let [all, half] = [NO_SIGNALS, NO_SIGNALS];
		for (let seed = 1; seed <= 60; seed++) {
			const handed = handOver({ procedure: HALF_MASK, seed, level: 2 });
			const answers = perfect(HALF_MASK, handed);
			const rejecting = scoreDrill(
				HALF_MASK,
				handed,
				answers.map((answer) => {
					const step = HALF_MASK.steps.find(({ key }) => key === answer.step);
					return { ...answer, value: 'reject', code: answer.code ?? step?.rejects[0] ?? '' };
				}),
				200
			);
			let nth = seed;
			const halving = scoreDrill(
				HALF_MASK,
				handed,
				answers.map((answer) =>
					answer.code && nth++ % 2 ? { ...answer, value: 'good', code: null } : answer
				),
				200
			);
			if (handed.faults.length > 1) expect(rejecting.index).toBeLessThan(halving.index);
			all = addSignals(all, rejecting.signals);
			half = addSignals(half, halving.signals);
		}
		expect(half.hits / (half.hits + half.misses)).toBeCloseTo(0.5, 1);
		expect(sensitivity(all).upper).toBeLessThan(sensitivity(half).lower);
		expect(sensitivity(all).bias).toBeLessThan(-1);
	});

	it('tells a wrong code, a figure that was misread, an answer against the air and one that was taken back', () => {
		const ba = INSPECTIONS.find(({ key }) => key === 'ba-set-bench');
		if (!ba) throw new Error('no BA set');
		const handed = handOver({ procedure: ba, seed: 5, level: 2 });
		const answers = perfect(ba, handed);
		const read = ba.steps.find(({ reading }) => reading?.kind === 'fill');
		const misread = answers.map((answer) =>
			answer.step === read?.key ? { ...answer, readings: { value: 230 } } : answer
		);
		expect(scoreDrill(ba, handed, misread, 1).misread).toBe(1);
		const first = answers[0];
		if (!first) throw new Error('no answer');
		const back = scoreDrill(ba, handed, [...answers, { ...first, value: 'cleared' }], 1);
		expect(back.steps[0]?.result).toBe('not answered');
		expect(judgeExam(back)).toEqual({ passed: false, why: '1 steps were not answered.' });
		expect(scoreDrill(ba, handed, [...answers].reverse(), 1).outOfOrder).toBe(answers.length - 1);
		const wrong = scoreDrill(
			HALF_MASK,
			{
				...handOver({ procedure: HALF_MASK, seed: 3, level: 1 }),
				faults: [{ step: 'exhalation-disc', code: 'CURL' }]
			},
			[{ step: 'exhalation-disc', value: 'reject', code: 'SEAT' }],
			1
		);
		expect(wrong.steps.find(({ step }) => step === 'exhalation-disc')?.result).toBe('wrong code');
	});

	it('is of a run as the runner keeps it', () => {
		const handed = handOver({ procedure: HALF_MASK, seed: 11, level: 3 });
		const events = perfect(HALF_MASK, handed);
		const state = runState(HALF_MASK, events);
		expect(state.left.every((step) => !canBeMet(step))).toBe(true);
	});
});

describe('a short test', () => {
	const rules = fc.constantFrom('uk' as const, 'us' as const);
	it('asks the same for the same number, each with one right answer among different ones', () => {
		fc.assert(
			fc.property(fc.constantFrom(...SHORT_TEST_KEYS), seeds, rules, (key, seed, ruleSet) => {
				const questions = questionsOf(key, seed, ruleSet);
				expect(questionsOf(key, seed, ruleSet)).toEqual(questions);
				expect(questions.length).toBeGreaterThan(3);
				for (const { asks, options, right, why } of questions) {
					expect(new Set(options).size).toBe(options.length);
					expect(options.length).toBeGreaterThan(2);
					expect(options[right]).toBeTruthy();
					expect([asks.length > 10, why.length > 10]).toEqual([true, true]);
				}
			}),
			{ numRuns: 60 }
		);
	});

	it('turns back where the half above the whistle is gone, of the one who has less', () => {
		// Common practice: of 300 bar with a whistle at 50 bar, 125 bar in, 125 bar out: back at 175 bar.
		for (const { asks, options, right } of Array.from({ length: 20 }, (_, i) => i + 1).flatMap(
			(seed) => questionsOf('turn-back', seed, 'uk')
		)) {
			const [, a, b, whistle] =
				/with (\d+) and (\d+) bar; the whistles sound at (\d+)/.exec(asks) ?? [];
			const least = Math.min(Number(a), Number(b));
			expect(options[right]).toBe(`${Math.round((least + Number(whistle)) / 2)} bar`);
		}
	});

	it('a trace is read by the rules of the bench: what cools through its limit is tested again, never failed', () => {
		// Published (from memory): pressure of a closed volume goes with its absolute temperature, about 346 Pa/K near room pressure.
		const drawn = Array.from({ length: 200 }, (_, i) => drilledTrace(new Chance(i + 1)));
		const answers = new Set(drawn.map(({ answer }) => answer));
		expect([...answers].sort()).toEqual(Object.keys(TRACE_ANSWERS).sort());
		for (const { recipe, samples, answer } of drawn) {
			const most =
				recipe.pass.kind === 'loss'
					? recipe.pass.mostPa
					: Math.abs(recipe.setPa) * (1 - recipe.pass.leastShare);
			const [a, b] = [samples[0], samples.at(-1)];
			const lost = Math.abs(a?.pa ?? 0) - Math.abs(b?.pa ?? 0);
			const cooled =
				((a?.temperatureC ?? 0) - (b?.temperatureC ?? 0)) * 346 * Math.sign(recipe.setPa);
			if (answer === 'fail') expect(lost - cooled).toBeGreaterThan(most * 0.9);
			if (answer === 'pass') expect(lost - cooled).toBeLessThan(most);
			if (answer === 'temperature') expect(Math.abs(cooled)).toBeGreaterThan(most * 0.5);
			expect(traceMarks({ recipe, samples }).length).toBeGreaterThan(8);
		}
	});

	it('never lets a filter be right where oxygen is short', () => {
		const short = Array.from({ length: 40 }, (_, i) => i + 1)
			.flatMap((seed) => questionsOf('equipment', seed, 'us'))
			.filter(({ asks }) => /oxygen 1[47] %/.test(asks));
		expect(short.length).toBeGreaterThan(5);
		for (const { options, right } of short) expect(options[right]).not.toMatch(/filter/i);
	});
});

describe('sensitivity', () => {
	// Published (from memory): Macmillan & Creelman, Detection Theory, and the tables of the normal distribution in every textbook.
	it.each([
		{ hit: 0.8, falseAlarm: 0.2, dPrime: 1.683, bias: 0 },
		{ hit: 0.84134, falseAlarm: 0.15866, dPrime: 2, bias: 0 },
		{ hit: 0.69146, falseAlarm: 0.30854, dPrime: 1, bias: 0 },
		{ hit: 0.8, falseAlarm: 0.4, dPrime: 1.095, bias: -0.294 },
		{ hit: 0.975, falseAlarm: 0.5, dPrime: 1.96, bias: -0.98 }
	])(
		'of a hit rate of $hit and $falseAlarm false alarms is $dPrime',
		({ hit, falseAlarm, dPrime, bias }) => {
			const of = sensitivity(
				{
					hits: hit * 1e5,
					misses: (1 - hit) * 1e5,
					falseAlarms: falseAlarm * 1e5,
					correctRejections: (1 - falseAlarm) * 1e5
				},
				true
			);
			expect(of.dPrime).toBeCloseTo(dPrime, 2);
			expect(of.bias).toBeCloseTo(bias, 2);
		}
	);

	it('has a name for a face test of 25 and 25: 20 hits, 10 false alarms give 1.095, half counts a little less', () => {
		const of = sensitivity({ hits: 20, misses: 5, falseAlarms: 10, correctRejections: 15 });
		// (20.5/26, 10.5/26): z 0.8006 and −0.2432, by the table.
		expect(of.dPrime).toBeCloseTo(1.044, 2);
		expect(of.lower).toBeLessThan(of.dPrime);
		expect(of.upper - of.dPrime).toBeCloseTo(of.dPrime - of.lower, 9);
	});

	it('covers what is true in about 19 of 20 cases', () => {
		let covered = 0;
		for (let i = 0; i < 200; i++) {
			let sum = NO_SIGNALS;
			for (let k = 0; k < 12; k++)
				sum = addSignals(
					sum,
					simulatedDrill(HALF_MASK, { dPrime: 1.5, bias: 0.2 }, i * 50 + k + 1).signals
				);
			const { lower, upper } = sensitivity(sum);
			if (lower <= 1.5 && upper >= 1.5) covered++;
		}
		expect(covered).toBeGreaterThan(180);
	});

	it('says nothing of nothing', () => {
		expect(() => sensitivity(NO_SIGNALS)).toThrow(/something to find/);
	});
});

describe('ratings', () => {
	// Published (from memory): Elo's table of expected scores: 100 points 0.64, 200 points 0.76, 400 points 0.91.
	it.each([
		[0, 0.5],
		[100, 0.64],
		[200, 0.76],
		[400, 0.909]
	])('%s points ahead find with a chance of %s', (ahead, chance) => {
		expect(chanceToFind(1500 + ahead, 1500)).toBeCloseTo(chance, 2);
	});

	it('give and take alike, and suit a fault that is found four times of five', () => {
		const { person, fault } = afterMeeting(1500, 1600, true);
		expect(person + fault).toBeCloseTo(3100, 9);
		expect(person).toBeGreaterThan(1500);
		expect(chanceToFind(1432, suits(1432))).toBeCloseTo(AIM, 9);
	});
});

describe('when a kind is met again', () => {
	it('goes by the published scheduler', () => {
		// Published: test_review_card of the reference implementation py-fsrs 6 (FSRS-6, default weights); from memory.
		const plain = fsrs(generatorParameters({ enable_fuzz: false }));
		let at = new Date('2022-11-29T12:30:00Z');
		let card = createEmptyCard(at);
		const days = [...'GGGGGGAAGGGGG'].map((given) => {
			card = plain.next(card, at, given === 'G' ? Rating.Good : Rating.Again).card;
			at = card.due;
			return card.scheduled_days;
		});
		expect(days).toEqual([0, 2, 11, 46, 163, 498, 0, 0, 2, 4, 7, 12, 21]);
	});

	it('comes sooner after a miss than after a wrong code, and that sooner than after finding it', () => {
		const at = new Date('2026-11-26T08:00:00Z');
		const first = meetAgain(null, 'found', at);
		const later = new Date(first.due);
		const [missed, wrong, found] = (['missed', 'wrong code', 'found'] as const).map((met) =>
			new Date(meetAgain(first, met, later).due).getTime()
		);
		expect(missed).toBeLessThan(wrong ?? 0);
		expect(wrong).toBeLessThan(found ?? 0);
	});

	it('is when nine of ten would still remember it', () => {
		const at = new Date('2026-11-26T08:00:00Z');
		let memory = meetAgain(null, 'found', at);
		for (let i = 0; i < 4; i++) memory = meetAgain(memory, 'found', new Date(memory.due));
		expect(remembered(memory, new Date(memory.due))).toBeCloseTo(0.9, 1);
		expect(remembered(memory, new Date(memory.lastReview ?? ''))).toBeCloseTo(1, 6);
	});
});

describe('rank correlation', () => {
	it('is that of a worked example', () => {
		// Published (from memory): hours of television against IQ, the example of most introductions: −29/165.
		const iq = [106, 86, 100, 101, 99, 103, 97, 113, 112, 110];
		const hours = [7, 0, 27, 50, 28, 29, 20, 12, 6, 17];
		expect(rankCorrelation(iq, hours)).toBeCloseTo(-29 / 165, 9);
	});
	it('is 1 for any rising curve, −1 turned round, and refuses lists that say nothing', () => {
		fc.assert(
			fc.property(fc.uniqueArray(fc.integer(), { minLength: 2 }), (values) => {
				expect(
					rankCorrelation(
						values,
						values.map((v) => v ** 3)
					)
				).toBeCloseTo(1, 9);
				expect(
					rankCorrelation(
						values,
						values.map((v) => -v)
					)
				).toBeCloseTo(-1, 9);
			})
		);
		expect(() => rankCorrelation([1, 1], [1, 2])).toThrow(/all the same/);
		expect(() => rankCorrelation([1], [1])).toThrow(/two at least/);
	});
	it('ranks simulated trainees of known skill', () => {
		const skill = Array.from({ length: 40 }, (_, i) => 0.4 + (3.2 * i) / 39);
		const seen = skill.map((dPrime, who) => {
			let sum = NO_SIGNALS;
			for (let k = 0; k < 20; k++)
				sum = addSignals(
					sum,
					simulatedDrill(HALF_MASK, { dPrime, bias: ((who % 5) - 2) * 0.2 }, who * 1000 + k + 1)
						.signals
				);
			return sensitivity(sum).dPrime;
		});
		expect(rankCorrelation(skill, seen)).toBeGreaterThan(0.85);
	});
});
