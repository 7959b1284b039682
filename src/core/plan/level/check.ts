import { type LevelProblem, ROUNDING } from './problem.ts';

/**
 * Whether a plan keeps what is hard, counted anew from its slots: whoever made it is not asked. Used before a plan that was
 * made elsewhere is kept.
 * @param at slot (worker × days + day) of each job; below 0: none
 * @returns a sentence for each job or day that does not hold; none: it holds
 */
export function faultsOfPlan(problem: LevelProblem, at: ArrayLike<number>): string[] {
	const { days, workers, jobs, floors, visitMin } = problem;
	const n = days.length;
	const faults: string[] = [];
	const load = new Map<number, number>();
	const ways = new Set<string>();
	const away = new Map<string, Set<string>>();
	jobs.forEach((job, i) => {
		const slot = at[i] ?? -1;
		if (slot < 0) return;
		const [worker, day] = [Math.floor(slot / n), slot % n];
		if (!Number.isInteger(slot) || worker >= workers.length)
			return void faults.push(`${job.id} stands on no day of the plan.`);
		const where = `${job.id} on ${days[day]}`;
		if (!job.pinned && !job.late && (day < job.from || day > job.to))
			faults.push(`${where} lies outside its window.`);
		if (!job.pinned && job.workers && !job.workers.includes(worker))
			faults.push(`${where} is not for ${workers[worker]?.id}.`);
		const way = `${slot} ${job.place}`;
		const path = job.place !== null && !ways.has(way) ? visitMin : 0;
		ways.add(way);
		load.set(slot, (load.get(slot) ?? 0) + job.minutes + path);
		for (let on = day; on < Math.min(n, day + job.awayDays); on++) {
			const key = `${on} ${job.place} ${job.kind}`;
			away.set(key, (away.get(key) ?? new Set()).add(job.item ?? `job ${i}`));
		}
	});
	for (const [slot, minutes] of load) {
		const [worker, day] = [Math.floor(slot / n), slot % n];
		const most = workers[worker]?.minutes[day] ?? 0;
		if (minutes > most + ROUNDING)
			faults.push(`${days[day]} holds ${minutes} of ${most} min of ${workers[worker]?.id}.`);
	}
	for (const { place, kind, ready, floor, missing } of floors)
		days.forEach((day, on) => {
			const gone = away.get(`${on} ${place} ${kind}`)?.size ?? 0;
			const left = ready - (missing?.[on] ?? 0) - gone;
			// What is short with nothing taken away is nobody's plan.
			if (gone > 0 && left < floor)
				faults.push(`${left} ${kind} would be ready at ${place} on ${day}, the floor is ${floor}.`);
		});
	return faults;
}
