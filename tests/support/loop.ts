import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { DEFAULT_FACTS } from '../../src/core/hazards/facts.ts';
import { fitTest, item, itemModel, wearer } from '../../src/lib/server/db/schema/index.ts';
import { approvePlan, savePlan } from '../../src/lib/server/hazards/plans.ts';
import type { SmallSite, TestDatabase } from './database.ts';

/** A task that half masks with gas filters serve, approved. */
export async function approvedPlan(
	yard: SmallSite,
	ppm = 160,
	task = 'Laminating'
): Promise<string> {
	const planId = randomUUID();
	await savePlan(yard.as(yard.people.technician), {
		requestId: randomUUID(),
		id: planId,
		task,
		placeId: yard.place,
		version: 0,
		facts: {
			...DEFAULT_FACTS,
			ruleSet: 'uk',
			exposureMin: 30,
			contaminants: [
				{
					substance: 'n-butyl-acetate',
					name: 'n-Butyl acetate',
					form: 'vapour',
					concentration: { value: ppm, unit: 'ppm' }
				}
			]
		}
	});
	await approvePlan(yard.as(yard.people.supervisor), {
		id: randomUUID(),
		planId,
		version: 1,
		reviewOn: '2027-05-01',
		expiresOn: '2027-11-01',
		note: ''
	});
	return planId;
}

/** A wearer who is cleared, trained and fitted to the models of some items. */
export async function fitted(
	test: TestDatabase,
	yard: SmallSite,
	number: string,
	fits: readonly { modelId: string; size?: string }[] = [],
	part: Partial<typeof wearer.$inferInsert> = {}
): Promise<string> {
	const id = randomUUID();
	await test.db.insert(wearer).values({
		id,
		number,
		name: `Wearer ${number}`,
		clearedUntil: '2027-06-30',
		trainedUntil: '2027-06-30',
		...part
	});
	for (const { modelId, size = 'M' } of fits)
		await test.db.insert(fitTest).values({
			id: randomUUID(),
			wearerId: id,
			modelId,
			size,
			mask: 'half',
			method: 'quantitative',
			ruleSet: 'uk',
			protocol: 'uk-seven',
			factors: {},
			overall: 2000,
			passed: true,
			reasons: [],
			testedOn: '2026-11-01',
			tester: 'T',
			signedBy: yard.people.technician.id,
			signedAt: new Date('2026-11-01T10:00:00Z')
		});
	return id;
}

/** The model of an item by its tag. */
export async function modelOf(test: TestDatabase, tag: string): Promise<string> {
	const [row] = await test.db
		.select({ id: itemModel.id })
		.from(item)
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.where(eq(item.tag, tag));
	return row?.id ?? '';
}
