import { FIT_PASS, type FitMask, judgeFit } from '../../src/core/fit/fit-factor.ts';
import { FIT_PROTOCOLS, judgeProtocol } from '../../src/core/fit/protocols.ts';
import { factorsOf, measuredBy, sequenceOf } from '../../src/core/fit/sequence.ts';
import { Chance } from '../chance.ts';
import { COUNTER_FAULTS, counterSeconds } from './simulate.ts';

/** How simulated fit tests with a known true fit were judged. */
export interface FitConfusion {
	cases: number;
	/** truth → verdict → count */
	table: Record<string, Record<string, number>>;
	/** True fit below half of the pass level, and passed. */
	passedBelowHalf: number;
	/** True fit at twice the pass level and more, and failed. */
	failedAboveTwice: number;
	/** The counter was at fault, and there was a verdict. */
	faultyJudged: number;
}

/** Judges so many seeded tests of both packs: fits round the pass level, leaks at one movement, faults of the counter. */
export function fitConfusion(cases: number, seed = 20_261): FitConfusion {
	const chance = new Chance(seed);
	const pick = <T>(list: readonly T[]): T => list[Math.floor(chance.next() * list.length)] as T;
	const result: FitConfusion = {
		cases,
		table: {},
		passedBelowHalf: 0,
		failedAboveTwice: 0,
		faultyJudged: 0
	};
	for (let i = 0; i < cases; i++) {
		const protocol = pick(FIT_PROTOCOLS);
		const mask: FitMask = pick(protocol.masks);
		const level = FIT_PASS[protocol.ruleSet][mask];
		const faults = COUNTER_FAULTS.filter((one) => one !== 'none' && one !== 'unplugged');
		const fault = chance.next() < 0.12 ? pick(faults) : 'none';
		// Evenly on a scale of tens from a fifth of the level to five times it.
		const middle = level * 5 ** chance.between(-1, 1);
		const leaks = chance.next() < 0.4 ? pick(protocol.exercises).key : null;
		const fit = Object.fromEntries(
			protocol.exercises.map(({ key }) => [
				key,
				middle * chance.between(0.9, 1.15) * (key === leaks ? chance.between(0.1, 0.6) : 1)
			])
		);
		const counted = protocol.exercises.filter((one) => one.counted).map(({ key }) => fit[key] ?? 1);
		const { outcome: right, overall } = judgeFit(counted, mask, protocol.ruleSet);
		const steps = sequenceOf(protocol);
		const readings = counterSeconds(
			{
				seed: seed + i * 7919,
				roomPerCm3: chance.between(2500, 12_000),
				driftPerMin: chance.between(-0.03, 0.03),
				fit,
				fault
			},
			steps.map(({ line, seconds, exercise }) => ({ line, seconds, label: exercise })),
			{ from: 0, to: steps.length - 1, run: 1, startS: 0 }
		);
		const measured = measuredBy(protocol, readings);
		const whole = measured.every(
			({ key, state }) =>
				state === 'measured' || protocol.exercises.some((one) => one.key === key && !one.counted)
		);
		const verdict = whole
			? judgeProtocol(protocol, factorsOf(measured), mask).outcome
			: 'not whole';
		const truth = fault === 'none' ? `truly ${right}` : 'counter at fault';
		const row = (result.table[truth] ??= {});
		row[verdict] = (row[verdict] ?? 0) + 1;
		if (fault !== 'none' && verdict !== 'not whole') result.faultyJudged++;
		if (fault === 'none' && verdict === 'pass' && overall < level / 2) result.passedBelowHalf++;
		const lowest = protocol.ruleSet === 'uk' ? Math.min(...counted) : overall;
		if (fault === 'none' && verdict === 'fail' && lowest > 2 * level) result.failedAboveTwice++;
	}
	return result;
}
