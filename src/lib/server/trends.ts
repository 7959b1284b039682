import { and, asc, eq, isNotNull, inArray } from 'drizzle-orm';
import { HOLD_DROP_BAR, WHISTLE_BAND_BAR } from '../../core/bench/breathing-apparatus.ts';
import { trendOf, trendReason, type Band, type TrendPoint } from '../../core/bench/trend.ts';
import type { Connection } from './db/client.ts';
import { inspectionAnswer, inspectionRun, itemModel } from './db/schema/index.ts';
import { standing } from './readiness.ts';
import { dayAt, type Site } from './site.ts';

/** What is followed over the inspections of an item. */
interface Followed {
	step: string;
	name: string;
	unit: string;
}
const FOLLOWED: readonly Followed[] = [
	{ step: 'whistle', name: 'Whistle', unit: 'bar' },
	{ step: 'hold', name: 'Drop in the hold', unit: 'bar' }
];

/** Every followed reading of an item, with its direction and when it will leave its band. */
export async function trendsOf(
	db: Connection,
	site: Site,
	itemId: string,
	model: Pick<typeof itemModel.$inferSelect, 'holdDropBar'>
) {
	const rows = await db
		.select({
			step: inspectionAnswer.step,
			readings: inspectionAnswer.readings,
			value: inspectionAnswer.value,
			run: inspectionRun.id,
			signedAt: inspectionRun.signedAt
		})
		.from(inspectionAnswer)
		.innerJoin(inspectionRun, eq(inspectionRun.id, inspectionAnswer.runId))
		.where(
			and(
				eq(inspectionRun.itemId, itemId),
				inArray(
					inspectionAnswer.step,
					FOLLOWED.map((f) => f.step)
				),
				isNotNull(inspectionAnswer.readings),
				...standing(db)
			)
		)
		.orderBy(asc(inspectionRun.signedAt), asc(inspectionAnswer.position));
	return FOLLOWED.flatMap((followed) => {
		// Of a step that was answered again in the same run the last answer stands.
		const byRun = new Map<string, TrendPoint>();
		for (const row of rows) {
			const value = row.step === followed.step ? valueOf(row.readings) : undefined;
			if (value !== undefined && row.signedAt)
				byRun.set(row.run, { on: dayAt(row.signedAt, site.timeZone), value });
		}
		const points = [...byRun.values()];
		if (points.length === 0) return [];
		const band = bandOf(followed.step, model.holdDropBar);
		const trend = trendOf(points, band) ?? null;
		return [
			{
				...followed,
				points,
				band,
				trend,
				reason: (trend && trendReason(followed.name, followed.unit, trend, band)) ?? null
			}
		];
	});
}

const valueOf = (readings: (typeof inspectionAnswer.$inferSelect)['readings']) =>
	readings?.value ??
	(readings?.start !== undefined && readings.end !== undefined
		? Number((readings.start - readings.end).toFixed(3))
		: undefined);

const bandOf = (step: string, holdDropBar: number | null): Band =>
	step === 'whistle'
		? WHISTLE_BAND_BAR
		: { to: Math.min(holdDropBar ?? HOLD_DROP_BAR, HOLD_DROP_BAR) };
