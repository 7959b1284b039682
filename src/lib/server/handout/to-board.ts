import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import { recordOf } from '../../../core/data/family-records.ts';
import { cylindersOn } from '../air/cylinders.ts';
import type { Connection } from '../db/client.ts';
import { custody, handOut, hazardPlan, item, wearer } from '../db/schema/index.ts';

/** A team as it left the counter: for the entry board, so that nothing is typed twice. */
export interface FromCounter {
	task: string;
	placeId: string | null;
	wearers: { wearer: string; set: string; litres: number | null; startBar: number | null }[];
}

/** What went out with some hand-outs and goes in: names, sets, volumes and pressures. Null where none of it does. */
export async function teamFromCounter(
	db: Connection,
	handOutIds: readonly string[]
): Promise<FromCounter | null> {
	if (handOutIds.length === 0) return null;
	const rows = await db
		.select({
			name: wearer.name,
			set: item.tag,
			setId: item.id,
			family: item.family,
			task: hazardPlan.task,
			placeId: hazardPlan.placeId
		})
		.from(custody)
		.innerJoin(handOut, eq(handOut.id, custody.handOutId))
		.innerJoin(item, eq(item.id, custody.itemId))
		.innerJoin(wearer, eq(wearer.id, handOut.wearerId))
		.leftJoin(hazardPlan, eq(hazardPlan.id, handOut.planId))
		.where(and(inArray(custody.handOutId, [...handOutIds]), isNull(custody.until)))
		.orderBy(asc(handOut.handedAt), asc(item.tag));
	const sets = rows.filter(({ family }) => recordOf(family).goesIn);
	const [first] = sets;
	if (!first) return null;
	const wearers = [];
	for (const { name, set, setId } of sets) {
		const on = await cylindersOn(db, setId);
		const bars = on.flatMap(({ pressureBar }) => pressureBar ?? []);
		wearers.push({
			wearer: name,
			set,
			litres: on.length ? on.reduce((sum, one) => sum + one.waterVolumeL, 0) : null,
			startBar: bars.length ? Math.min(...bars) : null
		});
	}
	return { task: first.task ?? '', placeId: first.placeId, wearers };
}
