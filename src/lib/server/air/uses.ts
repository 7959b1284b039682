import { type Consumption, consumptionFigures } from '../../../core/air/consumption.ts';
import { consumptionOf } from '../../../core/air/content.ts';
import type { EntryFacts } from '../../../core/air/entry.ts';
import type { Connection } from '../db/client.ts';
import { endedUses } from '../db/queries/entries.ts';
import type { entryReading, entryWearer } from '../db/schema/index.ts';

export type WearerRow = typeof entryWearer.$inferSelect;
export type ReadingRow = typeof entryReading.$inferSelect;

/** Uses shorter than this say nothing of a consumption, min. Common practice. */
const LEAST_USE_MIN = 5;

/** What a use came to, L/min; null for one too short to say. */
export function consumptionOfUse(
	wearer: Pick<WearerRow, 'startedAt' | 'endedAt' | 'startBar' | 'endBar' | 'waterVolumeL'>
): number | null {
	if (!wearer.endedAt || wearer.endBar === null) return null;
	const minutes = (wearer.endedAt.getTime() - wearer.startedAt.getTime()) / 60_000;
	if (minutes < LEAST_USE_MIN || wearer.endBar >= wearer.startBar) return null;
	const { waterVolumeL, startBar, endBar } = wearer;
	return consumptionOf({ waterVolumeL, startBar, endBar, minutes });
}

/** What every wearer on record takes, by name. */
export async function consumptions(db: Connection): Promise<Map<string, Consumption>> {
	const byWearer = new Map<string, number[]>();
	for (const { wearer } of await endedUses(db)) {
		const lPerMin = consumptionOfUse(wearer);
		if (lPerMin !== null)
			byWearer.set(wearer.wearer, [...(byWearer.get(wearer.wearer) ?? []), lPerMin]);
	}
	return new Map(
		[...byWearer].flatMap(([name, uses]) => {
			const figures = consumptionFigures(uses);
			return figures ? [[name, figures] as const] : [];
		})
	);
}

/** A wearer with readings as the computation takes them. */
export const factsOfEntry = (
	wearer: WearerRow,
	marginMin: number,
	readings: readonly ReadingRow[]
): EntryFacts => ({
	waterVolumeL: wearer.waterVolumeL,
	startBar: wearer.startBar,
	startedAt: wearer.startedAt.getTime(),
	warningBar: wearer.warningBar,
	marginMin,
	expectedLPerMin: wearer.expectedLPerMin,
	telemetry: wearer.channel !== null,
	readings: readings.map(({ at, bar, by, corrects }) => ({ at: at.getTime(), bar, by, corrects }))
});
