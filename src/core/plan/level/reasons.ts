import { computed, type Reason } from '../../verdict.ts';
import { readable } from '../calendar.ts';
import type { LevelPlan } from './level.ts';
import type { LevelProblem } from './problem.ts';

const minutes = (value: number) => `${Number(value.toFixed(1))} min`;

const LEVELLED = computed('levelled plan');
const INTERVAL = computed('densest interval of days');

/** What a plan comes to, as reasons. */
export function levelReasons(problem: LevelProblem, plan: LevelPlan): Reason[] {
	const { days } = problem;
	const planned = plan.outcome === 'planned';
	const reasons: Reason[] = [];
	if (planned)
		reasons.push({
			rule: 'level.peak',
			text: `The highest day is ${minutes(plan.peakMin)}; no plan can be below ${minutes(plan.boundMin)}.`,
			origin: INTERVAL,
			limit: plan.boundMin,
			value: plan.peakMin,
			unit: 'min'
		});
	else if (problem.workers.every((worker) => worker.minutes.every((capacity) => capacity <= 0)))
		reasons.push({
			rule: 'level.no-days',
			text: 'None of the days is worked on: nothing can be planned.',
			origin: LEVELLED
		});
	else if (plan.crowd)
		reasons.push({
			rule: 'level.crowd',
			text: `From ${readable(days[plan.crowd.from] ?? '')} to ${readable(days[plan.crowd.to] ?? '')} there must be done ${minutes(plan.crowd.minutes)}, and these days hold ${minutes(plan.crowd.room)}: there is no plan.`,
			origin: INTERVAL,
			limit: plan.crowd.room,
			value: plan.crowd.minutes,
			unit: 'min',
			margin: plan.crowd.room - plan.crowd.minutes
		});
	else if (plan.lost.length > 0)
		reasons.push({
			rule: 'level.lost',
			text: plan.proved
				? 'Every plan was looked at: none keeps all windows, hours and floors.'
				: 'No plan was found that keeps all windows, hours and floors.',
			origin: LEVELLED
		});
	for (const job of plan.lost) {
		const { id, from, to } = problem.jobs[job] ?? { id: '', from: 0, to: 0 };
		reasons.push({
			rule: 'level.job',
			text:
				from > to
					? `No day of the plan lies in the window of ${id}.`
					: `${id} found no day from ${readable(days[from] ?? '')} to ${readable(days[to] ?? '')}.`,
			origin: LEVELLED
		});
	}
	if (plan.late.length > 0)
		reasons.push({
			rule: 'level.late',
			text: `${plan.late.length} were to be done before ${readable(days[0] ?? '')}: they come first.`,
			origin: LEVELLED,
			value: plan.late.length
		});
	if (problem.visitMin > 0)
		reasons.push({
			rule: 'level.visits',
			text: `${plan.visits} ways to a place, ${minutes(problem.visitMin)} each, in the minutes of their days.`,
			origin: LEVELLED,
			value: plan.visits
		});
	return reasons;
}
