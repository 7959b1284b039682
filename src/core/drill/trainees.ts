import type { Procedure } from '../inspection/procedure.ts';
import { Chance } from '../stats/chance.ts';
import { normalProbability } from '../stats/tolerance.ts';
import { type Handed, handOver, type Level, rightAnswer } from './hand-over.ts';
import { canBeMet } from './kinds.ts';
import { type DrillAnswer, type DrillScore, scoreDrill } from './score.ts';

/** Somebody whose skill is known: how far apart good and bad lie for them, and how readily they reject. */
export interface Trainee {
	dPrime: number;
	bias: number;
}

/** Walks what was handed over as a trainee of known skill would, right code always: what is tried is the eye. */
export function walkAs(
	procedure: Procedure,
	handed: Handed,
	trainee: Trainee,
	seed: number
): { answers: DrillAnswer[]; score: DrillScore } {
	const chance = new Chance(seed ^ 0x5bd1e995);
	const threshold = trainee.dPrime / 2 + trainee.bias;
	const answers = procedure.steps.filter(canBeMet).map((step): DrillAnswer => {
		const truth = rightAnswer(procedure, handed, step);
		const rejects = chance.next() < 1 - normalProbability(threshold - (truth ? trainee.dPrime : 0));
		return {
			step: step.key,
			value: rejects ? 'reject' : 'good',
			code: rejects ? (truth ?? step.rejects[0] ?? null) : null,
			readings: handed.readings[step.key] ?? null
		};
	});
	return { answers, score: scoreDrill(procedure, handed, answers, 240 + chance.int(0, 180)) };
}

/** One drill of a trainee of known skill. */
export const simulatedDrill = (
	procedure: Procedure,
	trainee: Trainee,
	seed: number,
	level: Level = 2
): DrillScore => walkAs(procedure, handOver({ procedure, seed, level }), trainee, seed).score;
