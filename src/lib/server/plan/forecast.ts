import { airwayOf, inSentence } from '../../../core/data/families.ts';
import { groupBy } from '../../../core/group-by.ts';
import { plusDays } from '../../../core/plan/calendar.ts';
import { type BuyLine, buyLine } from '../../../core/plan/forecast/buying.ts';
import type { FleetRates, ForecastFacts } from '../../../core/plan/forecast/site-fleet.ts';
import { planDays } from '../../../core/plan/site-problem.ts';
import { statesByPlace } from '../db/queries/stock.ts';
import {
	failuresSince,
	fillsSince,
	filtersOnItems,
	modelsByPlace,
	openedSince,
	partsUsedSince,
	plannedJobs,
	repairDaysSince,
	usesSince
} from '../db/queries/plan.ts';
import { partsStore } from '../faults/parts.ts';
import { store } from '../filters/store.ts';
import { type Context, type Reader, todayOf } from '../kernel/context.ts';
import { planFacts, seenBy } from './facts.ts';

const DAY_MS = 86_400_000;
/** How far back the record is asked for rates, days: of failures, and of uses. Site defaults. */
const FAILURES_DAYS = 365;
const USES_DAYS = 30;
/** How far a forecast looks, days. Site default. */
export const FORECAST_DAYS = 90;
/** Days that one that failed stays away, and that one that was used needs to its shelf, where the record says nothing. Site defaults. */
const REPAIR_DAYS = 5;
const WASH_DAYS = 1.5;
const RUNS = 10_000;
const SEED = 16;
/** Chance to fall under a floor that is put up with. Site default. */
const MOST_CHANCE = 0.01;
/** Days from order to delivery, and the chance to have enough until then. Site defaults. */
const LEAD_DAYS = 14;
const SERVICE_LEVEL = 0.95;

/** Everything that the forecast of readiness is made from. */
export async function forecastFacts(context: Context): Promise<ForecastFacts> {
	const { db } = context;
	const now = context.now();
	const back = (days: number) => new Date(now.getTime() - days * DAY_MS);
	const [plan, failures, repairs, uses, models, floors] = await Promise.all([
		planFacts(context, FORECAST_DAYS),
		failuresSince(db, back(FAILURES_DAYS)),
		repairDaysSince(db, back(FAILURES_DAYS)),
		usesSince(db, back(USES_DAYS)),
		modelsByPlace(db),
		statesByPlace(db, todayOf(context))
	]);
	const workDays = Math.max(
		1,
		planDays({ ...plan, from: plusDays(plan.from, -USES_DAYS), until: plusDays(plan.from, -1) })
			.length
	);
	const byPlace = groupBy(models, ({ place, family }) => `${place}\n${family}`);
	return {
		plan: seenBy(context.actor.role, plan),
		rates: floors.map(({ placeId, place, family }): FleetRates => {
			const failed = failures.find((one) => one.family === family);
			const repaired = repairs.find((one) => one.family === family);
			const out = uses.find((one) => one.placeId === placeId && one.family === family);
			return {
				place,
				kind: inSentence(airwayOf(family).plural),
				failures: { failed: failed?.failed ?? 0, of: failed?.of ?? 0 },
				repairDays: repaired ? Math.max(1, repaired.days) : REPAIR_DAYS,
				usesPerDay: (out?.times ?? 0) / workDays,
				washDays: WASH_DAYS,
				models: (byPlace.get(`${place}\n${family}`) ?? []).map(({ id, name, count }) => ({
					id,
					name,
					count
				}))
			};
		}),
		runs: RUNS,
		seed: SEED,
		mostChance: MOST_CHANCE
	};
}

/** A line of what to buy. */
export interface ToBuy extends BuyLine {
	key: string;
	name: string;
	unit: string;
	href: string;
	/** What it goes by, in words. */
	why: string;
}

/** What to buy and by when, and what to fill: by what the record says was used and what the plan will use. */
export async function buyAndFill(context: Reader) {
	const { db } = context;
	const from = todayOf(context);
	const since = plusDays(from, -FORECAST_DAYS);
	const sinceMoment = new Date(context.now().getTime() - FORECAST_DAYS * DAY_MS);
	const [filters, parts, opened, used, fitted, planned, fills] = await Promise.all([
		store(context),
		partsStore(context),
		openedSince(db, since),
		partsUsedSince(db, sinceMoment),
		filtersOnItems(db),
		plannedJobs(db, { from }),
		fillsSince(db, sinceMoment)
	]);
	const onItem = new Map(fitted.map((pair) => [pair.itemId, pair]));
	const changes = new Map<string, number[]>();
	let refills = 0;
	for (const { job, day, itemId } of planned) {
		if (job.what === 'fresh air') refills++;
		const pair = job.what === 'filters' && itemId ? onItem.get(itemId) : undefined;
		if (!pair) continue;
		const days = changes.get(pair.modelId) ?? Array.from({ length: FORECAST_DAYS }, () => 0);
		const on = Math.round((Date.parse(day) - Date.parse(from)) / DAY_MS);
		if (on >= 0 && on < FORECAST_DAYS) days[on] = (days[on] ?? 0) + pair.pieces;
		changes.set(pair.modelId, days);
	}
	const lines: ToBuy[] = [];
	for (const { model, lots } of filters.models) {
		const perDay =
			(opened.find(({ modelId }) => modelId === model.id)?.pieces ?? 0) / FORECAST_DAYS;
		const known = changes.get(model.id);
		const use = Array.from({ length: FORECAST_DAYS }, (_, day) =>
			Math.max(perDay, known?.[day] ?? 0)
		);
		const good = lots.filter(({ recalledAt }) => !recalledAt);
		const line = buyLine(
			{
				lots: good.map(({ sealedQuantity, useBy }) => ({ quantity: sealedQuantity, useBy })),
				use,
				leadTimeDays: LEAD_DAYS,
				keepsDays: null
			},
			from,
			SERVICE_LEVEL
		);
		const changing = known?.reduce((sum, n) => sum + n, 0) ?? 0;
		lines.push({
			...line,
			key: `filter ${model.id}`,
			name: model.name,
			unit: 'filters',
			href: '/filters/store',
			why: `${Math.round(perDay * FORECAST_DAYS)} opened in ${FORECAST_DAYS} days${changing ? `, ${changing} by the plan` : ''}`
		});
	}
	for (const { part, name, lots, consumable } of parts) {
		const pieces = used.find((one) => one.part === part)?.pieces ?? 0;
		// What is used up at the bench is not written down piece by piece: it is bought by its level.
		if (consumable) continue;
		const line = buyLine(
			{
				lots: lots.map(({ quantity, useBy }) => ({ quantity, useBy })),
				use: Array.from({ length: FORECAST_DAYS }, () => pieces / FORECAST_DAYS),
				leadTimeDays: LEAD_DAYS,
				keepsDays: null
			},
			from,
			SERVICE_LEVEL
		);
		lines.push({
			...line,
			key: `part ${part}`,
			name,
			unit: 'pieces',
			href: '/faults/parts',
			why: `${pieces} fitted in ${FORECAST_DAYS} days`
		});
	}
	lines.sort(
		(a, b) =>
			(a.orderBy ?? '9999').localeCompare(b.orderBy ?? '9999') || a.name.localeCompare(b.name)
	);
	return {
		from,
		days: FORECAST_DAYS,
		leadDays: LEAD_DAYS,
		serviceLevel: SERVICE_LEVEL,
		lines,
		consumables: parts.filter(({ consumable, buy }) => consumable && buy).map(({ name }) => name),
		fill: {
			perDay: fills / FORECAST_DAYS,
			fresh: refills,
			airTests: planned.filter(({ job }) => job.what === 'air test').length
		}
	};
}
