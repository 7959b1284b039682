import { z } from 'zod';
import { readyChance, reorderPoint } from '../plan/forecast/steady.ts';
import { problemOf } from '../plan/level/asked.ts';
import { level } from '../plan/level/level.ts';
import { levelReasons } from '../plan/level/reasons.ts';
import { listOf, MOST, operation, reason, words } from './operation.ts';
import { calcReasons } from './reasons.ts';

const day = z.iso.date('A day as YYYY-MM-DD.').max(10);
/** Minutes of a day, or of a job that may take many. */
const minutes = z.number().nonnegative().max(MOST.minutes);

const levelOperation = operation({
	name: 'level',
	description:
		'A day for every job within its window: under capacity, above floors, the highest day lowest.',
	input: z.strictObject({
		days: listOf(z.strictObject({ day, capacityMin: minutes }), MOST.planDays),
		jobs: listOf(
			z.strictObject({
				id: words.min(1),
				minutes,
				earliest: day,
				latest: day,
				place: words.optional(),
				kind: words.optional(),
				awayDays: z.number().int().nonnegative().max(MOST.days).optional()
			}),
			MOST.jobs
		),
		floors: listOf(
			z.strictObject({
				place: words,
				kind: words,
				ready: z.number().int().nonnegative().max(MOST.fleet),
				floor: z.number().int().nonnegative().max(MOST.fleet)
			}),
			MOST.sets
		).optional(),
		visitMin: minutes.optional()
	}),
	output: z.object({
		outcome: z.enum(['planned', 'infeasible']),
		assignment: z.record(z.string(), z.string()),
		peakMin: z.number(),
		boundMin: z.number(),
		gap: z.number(),
		late: z.array(z.string()),
		relax: z
			.array(
				z.object({
					constraint: z.enum(['capacity', 'floor', 'window', 'competence']),
					change: z.string(),
					jobs: z.array(z.string())
				})
			)
			.optional(),
		reasons: z.array(reason)
	}),
	run(input) {
		const problem = problemOf(input);
		const plan = level(problem);
		const { outcome, peakMin, boundMin, gap, late, relax } = plan;
		const idOf = (job: number) => problem.jobs[job]?.id ?? '';
		return {
			outcome,
			assignment: Object.fromEntries(
				[...plan.at].flatMap((slot, job) =>
					slot < 0 ? [] : [[idOf(job), problem.days[slot % problem.days.length] ?? '']]
				)
			),
			peakMin,
			boundMin,
			gap,
			late: late.map(idOf),
			...(outcome === 'infeasible'
				? { relax: relax.map(({ constraint, change, jobs }) => ({ constraint, change, jobs })) }
				: {}),
			reasons: calcReasons(levelReasons(problem, plan))
		};
	}
});

const reorder = operation({
	name: 'reorder',
	description: 'The stock at which more is ordered, so that the lead time is covered.',
	input: z.strictObject({
		perMonth: z.number().nonnegative().max(MOST.fleet),
		leadTimeDays: z.number().nonnegative().max(MOST.leadDays),
		serviceLevel: z.number().gt(0).lt(1)
	}),
	output: z.object({ reorderAt: z.number(), expected: z.number() }),
	run: (input) => reorderPoint(input)
});

const readyChanceOperation = operation({
	name: 'ready-chance',
	description:
		'How many are away in steady state, and the chance that fewer than the floor are ready.',
	input: z.strictObject({
		sets: z.number().int().nonnegative().max(MOST.fleet),
		awayPerDay: z.number().nonnegative().max(MOST.fleet),
		awayDays: z.number().nonnegative().max(MOST.leadDays),
		floor: z.number().int().nonnegative().max(MOST.fleet)
	}),
	output: z.object({ expectedAway: z.number(), chanceBelowFloor: z.number() }),
	run: (input) => readyChance(input)
});

/** Operations on the plan and the forecast. */
export const PLAN_OPERATIONS = [levelOperation, reorder, readyChanceOperation];
