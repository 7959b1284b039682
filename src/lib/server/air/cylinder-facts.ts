import { failedAfter } from '../../../core/air/source.ts';
import type { Day } from '../../../core/plan/calendar.ts';
import type { CylinderKnown } from '../../../core/readiness/facts.ts';
import type { Connection } from '../db/client.ts';
import { type CylinderRow, cylinderRows } from '../db/queries/facts.ts';
import { dayAt } from '../kernel/site.ts';

export interface AirFailed {
	source: string;
	sourceId: string;
	on: Day;
	testId: string;
}

/** What is known of a cylinder, with the test that its air failed. */
export interface HeldCylinder extends CylinderKnown {
	airFailed: AirFailed | null;
}

/** What the rows of a cylinder come to. */
export function heldCylinder(row: CylinderRow, timeZone: string): HeldCylinder {
	const { material, manufacturedOn, lifeEndsOn, testYears, pressureBar, lastTestOn } = row;
	return {
		material,
		manufacturedOn,
		lifeEndsOn,
		testYears,
		pressureBar,
		lastTestOn,
		testFailed: row.testFailed,
		filledOn: row.fill ? dayAt(new Date(row.fill.endedAt), timeZone) : null,
		airFailed: airFailedIn(row, timeZone)
	};
}

/** The failed test that the last fill falls under, where one does. */
function airFailedIn({ fill, airTests }: CylinderRow, timeZone: string): AirFailed | null {
	if (!fill) return null;
	const test = failedAfter(
		Date.parse(fill.startedAt),
		Date.parse(fill.endedAt),
		airTests.map(({ id, takenAt, outcome }) => ({
			id,
			outcome,
			at: Date.parse(takenAt),
			on: dayAt(new Date(takenAt), timeZone)
		}))
	);
	return test && { source: fill.source, sourceId: fill.sourceId, on: test.on, testId: test.id };
}

/** What is known of cylinders, by item; those without data are left out. */
export async function cylindersOf(
	db: Connection,
	itemIds: readonly string[],
	timeZone: string
): Promise<Map<string, HeldCylinder>> {
	if (itemIds.length === 0) return new Map();
	const rows = await cylinderRows(db, itemIds);
	return new Map(rows.map((row) => [row.itemId, heldCylinder(row, timeZone)]));
}
