import { planSite } from '../../../core/plan/plan-site.ts';
import { workHours } from '../db/schema/index.ts';
import { loadSite } from '../kernel/site.ts';
import { planFacts } from '../plan/facts.ts';
import { keepPlan } from '../plan/plan.ts';
import type { Seed } from './seeding.ts';

/** Minutes of plan work, Monday to Sunday: Odd is at the boats on Fridays. */
const HOURS = { ilse: [240, 240, 240, 240, 240, 0, 0], odd: [240, 240, 240, 240, 120, 0, 0] };

/** The plan of this morning, levelled, so that the weeks before are to be seen. */
export async function seedPlan(seed: Seed, now: Date): Promise<void> {
	const { tx } = seed;
	await tx
		.insert(workHours)
		.values(Object.entries(HOURS).map(([key, minutes]) => ({ userId: seed.person(key), minutes })));
	if (seed.isLarge) return;
	const site = await loadSite(tx);
	const facts = await planFacts({ db: tx, site, now: () => now });
	const { placed, relaxed } = planSite(facts);
	const by = seed.person('tove');
	await keepPlan(
		{
			tx,
			now,
			actor: { id: by, name: '', initials: '', role: 'supervisor' },
			record: (action, { of, payload }) => seed.happen({ at: now, by, of, action, payload })
		},
		{ ...facts, relaxed },
		placed,
		'anew',
		0
	);
}
