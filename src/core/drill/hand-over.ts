import type { Procedure, ReadingRule, Step } from '../inspection/procedure.ts';
import { judgeReading, type ReadingFacts, type Readings } from '../inspection/reading.ts';
import { Chance } from '../stats/chance.ts';
import { canBeMet, type Kind, type Meeting, meetingsOf } from './kinds.ts';

/** How hard it is: how many faults, and how far each has gone. */
export type Level = 1 | 2 | 3;
export const DRILL_LEVELS = [1, 2, 3] as const;

/** An item as a drill hands it over. */
export interface Handed {
	seed: number;
	level: Level;
	faults: { step: string; code: string }[];
	/** Steps at which something looks like a fault and is none. */
	near: string[];
	/** How each step is drawn. */
	vary: Record<string, { amount: number; at: number }>;
	/** What the simulated set shows. */
	readings: Record<string, Readings>;
}

/** What the readings of a drill are judged against: a set of 300 bar by the standard. */
export const DRILL_LIMITS: ReadingFacts = {
	ratedBar: 300,
	medium: { from: 6, to: 9 },
	leastInletBar: 4.5
};

/** By level: how many faults, how often a fault is one of those that should be met next, how far gone they are, how many near ones. Site defaults. */
const LEVELS = {
	1: { fewest: 1, most: 1, favoured: 1, from: 0.8, to: 1, near: 1 },
	2: { fewest: 0, most: 3, favoured: 0.7, from: 0.5, to: 0.9, near: 2 },
	3: { fewest: 0, most: 4, favoured: 0.7, from: 0.15, to: 0.55, near: 3 }
} as const;

/** What the set shows at a step that is read, by how it is. */
function figures(rule: ReadingRule, how: 'good' | 'near' | string, chance: Chance): Readings {
	const between = (from: number, to: number, step = 1) =>
		Math.round(chance.between(from, to) / step) * step;
	const high = how === rule.codeHigh;
	switch (rule.kind) {
		case 'fill':
			return {
				value:
					how === 'good'
						? between(282, 300)
						: how === 'near'
							? between(272, 277)
							: between(170, 260)
			};
		case 'hold': {
			const start = between(284, 298);
			const drop =
				how === 'good' ? between(0, 5) : how === 'near' ? between(7, 9) : between(13, 34);
			return { start, end: start - drop, seconds: rule.seconds ?? 60 };
		}
		case 'whistle':
			return {
				value:
					how === 'good'
						? between(52, 58)
						: how === 'near'
							? chance.pick([50, 60])
							: high
								? between(67, 95)
								: between(28, 45)
			};
		case 'inlet':
			return {
				value: how === 'good' ? between(5, 7, 0.5) : how === 'near' ? 4.5 : between(2, 3.5, 0.5)
			};
		case 'medium':
			return {
				value:
					how === 'good'
						? between(7, 8, 0.5)
						: how === 'near'
							? chance.pick([6.2, 8.8])
							: chance.pick([4.5, 5, 10, 11])
			};
	}
}

/**
 * An item with seeded faults, with what only looks like one, or with nothing.
 * @param favour kinds that should be met next, the most wanted first
 * @param canBeNear whether something at a step can look like a fault and be none
 */
export function handOver(of: {
	procedure: Procedure;
	seed: number;
	level: Level;
	favour?: readonly Kind[];
	canBeNear?: (step: Step) => boolean;
}): Handed {
	const { procedure, seed, level } = of;
	const rule = LEVELS[level];
	const chance = new Chance(seed);
	const all = meetingsOf(procedure);
	const favoured = (of.favour ?? []).slice(0, 8);
	const count = rule.fewest + Math.floor(chance.next() * (rule.most - rule.fewest + 1));
	const taken = new Map<string, Meeting>();
	for (let i = 0; i < count; i++) {
		const free = all.filter(({ step }) => !taken.has(step));
		const wanted = favoured.filter((kind) => free.some((one) => one.kind === kind));
		const kind = wanted.length && chance.next() < rule.favoured ? wanted[0] : null;
		const from = kind ? free.filter((one) => one.kind === kind) : free;
		if (from.length === 0) break;
		const chosen = chance.pick(from);
		taken.set(chosen.step, chosen);
		if (kind) favoured.splice(favoured.indexOf(kind), 1);
	}
	const steps = procedure.steps.filter(canBeMet);
	const quiet = steps.filter(
		(step) =>
			!taken.has(step.key) && (step.reading !== undefined || (of.canBeNear?.(step) ?? false))
	);
	const near: string[] = [];
	for (let i = 0; i < rule.near && quiet.length > 0; i++)
		near.push(...quiet.splice(Math.floor(chance.next() * quiet.length), 1).map(({ key }) => key));
	return {
		seed,
		level,
		// In the order of the air.
		faults: steps.flatMap(({ key }) => {
			const met = taken.get(key);
			return met ? [{ step: key, code: met.code }] : [];
		}),
		near,
		vary: Object.fromEntries(
			steps.map(({ key }) => [
				key,
				{ amount: chance.between(rule.from, rule.to), at: chance.next() }
			])
		),
		readings: Object.fromEntries(
			steps.flatMap(({ key, reading }) =>
				reading
					? [
							[
								key,
								figures(
									reading,
									taken.get(key)?.code ?? (near.includes(key) ? 'near' : 'good'),
									chance
								)
							]
						]
					: []
			)
		)
	};
}

/** The answer that is right at a step: good, or one code. */
export function rightAnswer(procedure: Procedure, handed: Handed, step: Step): string | null {
	const shown = handed.readings[step.key];
	if (step.reading && shown) return judgeReading(step, shown, DRILL_LIMITS).code;
	return handed.faults.find((fault) => fault.step === step.key)?.code ?? null;
}
