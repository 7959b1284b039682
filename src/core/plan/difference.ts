import { type Day, readable } from './calendar.ts';
import type { PlanJob } from './jobs.ts';
import type { Placed } from './site-problem.ts';

/** How a job of the plan changed from one evening to the next. */
export interface PlanChange {
	key: string;
	tag: string;
	title: string;
	/** Null: it is new. */
	from: { day: Day; userId: string } | null;
	/** Null: it is done, or gone. */
	to: { day: Day; userId: string } | null;
}

/** What changed between two plans, what moved first, then what is new, then what is gone; each in order of its day. */
export function differenceOf(
	before: readonly (Placed & Pick<PlanJob, 'tag' | 'title'>)[],
	after: readonly (Placed & Pick<PlanJob, 'tag' | 'title'>)[]
): PlanChange[] {
	const was = new Map(before.map((job) => [job.key, job]));
	const is = new Set(after.map(({ key }) => key));
	const at = ({ day, userId }: Placed) => ({ day, userId });
	const changes = after.flatMap(({ key, tag, title, ...job }): PlanChange[] => {
		const old = was.get(key);
		const to = at({ key, ...job });
		if (!old) return [{ key, tag, title, from: null, to }];
		if (old.day === job.day && old.userId === job.userId) return [];
		return [{ key, tag, title, from: at(old), to }];
	});
	for (const old of before)
		if (!is.has(old.key))
			changes.push({ key: old.key, tag: old.tag, title: old.title, from: at(old), to: null });
	const order = ({ from, to }: PlanChange) => (from && to ? 0 : to ? 1 : 2);
	return changes.sort(
		(a, b) =>
			order(a) - order(b) ||
			(a.to ?? a.from)!.day.localeCompare((b.to ?? b.from)!.day) ||
			a.tag.localeCompare(b.tag)
	);
}

/** A change as a sentence. */
export function changeWords(change: PlanChange, name: (userId: string) => string): string {
	const { tag, title, from, to } = change;
	const what = `${tag}, ${title.charAt(0).toLowerCase()}${title.slice(1)}`;
	if (!from) return to ? `${what}: new, ${readable(to.day)}, ${name(to.userId)}` : what;
	if (!to) return `${what}: done or gone, was ${readable(from.day)}`;
	if (from.day === to.day) return `${what}: ${name(to.userId)} instead of ${name(from.userId)}`;
	const who = from.userId === to.userId ? '' : `, ${name(to.userId)}`;
	return `${what}: ${readable(to.day)}${who}, before ${readable(from.day)}`;
}
