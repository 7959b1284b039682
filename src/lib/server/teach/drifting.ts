import { inArray } from 'drizzle-orm';
import { LEAST_POINTS } from '../../../core/bench/trend.ts';
import type { Day } from '../../../core/plan/calendar.ts';
import { item } from '../db/schema/index.ts';
import { measuredItems } from '../db/queries/teach.ts';
import type { Reader } from '../kernel/context.ts';
import { loadFacts } from '../readiness/facts.ts';

/** A value of an item on its way out of its limits. */
export interface Drift {
	tag: string;
	what: string;
	unit: string;
	now: number;
	perMonth: number;
	crossesOn: Day;
	/** It stands outside already. */
	outside: boolean;
}

/** So many items are followed at once, those with the most readings first. */
const MOST_ITEMS = 2_000;
const CHUNK = 500;

/** Whistles, holds and leaks of the whole fleet that leave their limits within two years, the first to cross first. */
export async function drifting({ db, site }: Pick<Reader, 'db' | 'site'>): Promise<Drift[]> {
	const ids = await measuredItems(db, LEAST_POINTS, MOST_ITEMS);
	const found: Drift[] = [];
	for (let i = 0; i < ids.length; i += CHUNK) {
		const chunk = ids.slice(i, i + CHUNK);
		const [facts, tags] = await Promise.all([
			loadFacts(db, chunk, site),
			db.select({ id: item.id, tag: item.tag }).from(item).where(inArray(item.id, chunk))
		]);
		for (const { id, tag } of tags)
			for (const { name, unit, trend } of facts.get(id)?.trends ?? [])
				if (trend?.sure && trend.crossesOn)
					found.push({
						tag,
						what: name,
						unit,
						now: trend.now,
						perMonth: trend.perMonth,
						crossesOn: trend.crossesOn,
						outside: trend.inDays === 0
					});
	}
	return found.sort((a, b) => a.crossesOn.localeCompare(b.crossesOn) || a.tag.localeCompare(b.tag));
}
