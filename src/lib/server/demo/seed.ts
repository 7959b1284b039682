import { count } from 'drizzle-orm';
import type { Connection, Database } from '../db/client.ts';
import { site, user } from '../db/schema/index.ts';
import { loadSite } from '../kernel/site.ts';
import { analyze, withoutGuards } from '../db/queries/seed.ts';
import { rebuildState } from '../readiness/rebuild.ts';
import { eq } from 'drizzle-orm';
import { writeAccount } from '../access/accounts.ts';
import { type Auth, hashPassword, hashPin } from '../web/auth.ts';
import { PEOPLE } from './scenario.ts';
import { seedCustody } from './seed-custody.ts';
import { seedEquipment } from './seed-equipment.ts';
import { fitCanisters, fitFilters } from './seed-filters.ts';
import { seedPlan } from './seed-plan.ts';
import { seedPeople } from './seed-people.ts';
import { seedDrills } from './seed-drill.ts';
import { seedFaults } from './seed-faults.ts';
import { seedSeals } from './seed-seals.ts';
import { seedPlans } from './seed-plans.ts';
import { Seed, type SeedOptions } from './seeding.ts';

/** The PIN of every person of the demo; it is shown beside them where the demo is offered. */
export const DEMO_PIN = '2580';

/** Whether the database holds no site yet. */
export async function isEmpty(db: Connection): Promise<boolean> {
	const [row] = await db.select({ n: count() }).from(site);
	return (row?.n ?? 0) === 0;
}

/** Fills an empty database with the demo: deterministic but for the day it is counted from. All or nothing. */
export async function seedDemo(db: Database, auth: Auth, options: SeedOptions): Promise<void> {
	const password = await hashPassword(auth, options.password);
	const pins = new Map(
		await Promise.all(
			PEOPLE.map(async ({ key }) => [key, await hashPin(auth, `demo-${key}`, DEMO_PIN)] as const)
		)
	);
	await db.transaction(async (tx) => {
		const people = new Map<string, string>();
		for (const person of PEOPLE) {
			const given = { ...person, id: `demo-${person.key}`, password: options.password };
			const { userId } = await writeAccount(tx, given, password);
			await tx
				.update(user)
				.set({ pinHash: pins.get(person.key), card: person.card })
				.where(eq(user.id, userId));
			people.set(person.key, userId);
		}
		const seed = new Seed(tx, options, people);
		await seed.base();
		await seed.items();
		const inspections = () => seed.inspections();
		await (seed.isLarge ? withoutGuards(tx, inspections) : inspections());
		await seedPlans(seed);
		const more = await seedEquipment(seed);
		await fitFilters(seed);
		await seedFaults(seed);
		await seed.stories();
		await fitCanisters(seed);
		await seed.testHouses();
		await seed.consumables();
		await seedPeople(seed);
		await seedSeals(seed);
		await seedDrills(seed);
		const ids = [...seed.masks.map((m) => m.id), ...more];
		const choices = await loadSite(tx);
		// Of tables that were empty a moment ago nothing is known yet: without it every chunk is planned as if they were.
		await analyze(tx);
		await rebuildState(tx, ids, choices);
		// What goes out is what is ready.
		const moved = await seedCustody(seed, options.now);
		await rebuildState(tx, moved, choices);
		await seedPlan(seed, options.now);
		await seed.writeRecord();
	});
}
