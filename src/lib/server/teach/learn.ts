import { airwayOf, FAMILIES } from '../../../core/data/families.ts';
import { partName } from '../../../core/service/parts-store.ts';
import { compareGroups } from '../../../core/stats/exact.ts';
import { falseDiscovery } from '../../../core/stats/false-discovery.ts';
import { wilson } from '../../../core/stats/wilson.ts';
import { kaplanMeier } from '../../../core/survival/kaplan-meier.ts';
import { ageReplacement, bestInterval } from '../../../core/survival/replacement.ts';
import { FEWEST_FAILURES, fitWeibull, manner } from '../../../core/survival/weibull.ts';
import { alike, asCell, ratesByFactor } from '../../../core/teach/by-factor.ts';
import { causesOf, causeWords } from '../../../core/teach/causes.ts';
import {
	inspectorCounts,
	itemCounts,
	monthCounts,
	partLives,
	serviceCounts,
	stationCounts
} from '../db/queries/teach.ts';
import { heavy } from '../jobs/heavy.ts';
import type { Context } from '../kernel/context.ts';
import { may } from '../kernel/permissions.ts';
import { drifting } from './drifting.ts';
import { alarmList, clusterFacts, hrefOfGroup, namesOfGroups } from './clusters.ts';

const DAY_MS = 86_400_000;
/** Groups whose signs are shown, the strongest first. */
const SIGNS = 8;
/** A failure in service costs so many times a planned change where the site says nothing else. Site default. */
export const FAILED_COSTS = 5;

/** What the record of a period teaches, of one family. */
export async function learn(
	context: Context,
	{ family, days, cost }: { family: string | null; days: number; cost: number }
) {
	const { db } = context;
	const since = new Date(context.now().getTime() - days * DAY_MS);
	const [stations, items, lives, service, facts, alarms, names, drift] = await Promise.all([
		stationCounts(db, since),
		itemCounts(db, since),
		partLives(db),
		serviceCounts(db, since),
		clusterFacts(db, context.now()),
		alarmList(db),
		namesOfGroups(db),
		drifting(context)
	]);
	const signs = await heavy('clusters', facts);
	const counts = FAMILIES.map((one) => ({
		family: one.family,
		plural: one.plural,
		n: stations
			.filter((row) => row.family === one.family)
			.reduce((sum, row) => sum + row.failures, 0)
	})).filter(({ n }) => n > 0);
	const most = [...counts].sort((a, b) => b.n - a.n)[0];
	const chosen =
		counts.find((one) => one.family === family)?.family ??
		most?.family ??
		FAMILIES[0]?.family ??
		'';
	const cells = alike(
		items.filter((row) => row.family === chosen).map((row) => asCell(row, partName))
	);
	const causes = causesOf(cells);
	const months = await monthCounts(db, chosen, since);
	return {
		family: chosen,
		families: counts,
		alarms,
		signs: signs
			.slice(0, SIGNS)
			.filter(({ faults }) => faults > 0)
			.map((sign) => ({
				...sign,
				name: names.get(sign.group) ?? sign.group,
				href: hrefOfGroup(sign.group)
			})),
		watched: signs.length,
		stations: airwayOf(chosen).stations.map(({ key, name }) => {
			const row = stations.find((one) => one.family === chosen && one.station === key);
			const trials = Math.max(row?.inspections ?? 0, row?.failures ?? 0);
			return {
				key,
				name,
				failures: row?.failures ?? 0,
				inspections: row?.inspections ?? 0,
				share: trials > 0 ? wilson(row?.failures ?? 0, trials) : null
			};
		}),
		causes: { ...causes, said: causes.causes.map(causeWords) },
		factors: ratesByFactor(cells).map(({ factor, rates, pValue }) => ({ factor, rates, pValue })),
		months: months
			.filter(({ inspections }) => inspections > 0)
			.map(({ month, inspections, failures }) => ({
				name: month,
				...wilson(Math.min(failures, inspections), inspections)
			})),
		drift,
		parts: livesOf(lives, cost),
		service: {
			...service,
			hours: undefined,
			medianHours: quantile(service.hours, 0.5),
			ninetyHours: quantile(service.hours, 0.9),
			mended: service.hours.length
		},
		inspectors: may(context.actor.role, 'release')
			? inspectors(await inspectorCounts(db, since))
			: null
	};
}

type Life = Awaited<ReturnType<typeof partLives>>[number];

/** Lives of each part, the most failures first. */
function livesOf(lives: readonly Life[], cost: number) {
	return [...new Set(lives.map(({ part }) => part))]
		.map((part) => {
			const own = lives
				.filter((life) => life.part === part)
				.map(({ days, failed }) => ({ duration: days, failed }));
			const failures = own.filter(({ failed }) => failed).length;
			const law = failures >= FEWEST_FAILURES ? fitWeibull(own) : null;
			const best = law && bestInterval(law, { planned: 1, failed: cost });
			return {
				part,
				name: partName(part),
				sits: own.length,
				failures,
				...kaplanMeier(own),
				law: law && { ...law, manner: manner(law) },
				best,
				/** What other intervals bring, in years. */
				choices: law
					? [1, 2, 3, 5].map((years) =>
							ageReplacement(law, years * 365, { planned: 1, failed: cost })
						)
					: []
			};
		})
		.sort((a, b) => b.failures - a.failures || b.sits - a.sits);
}

function quantile(sorted: readonly number[], p: number): number | null {
	if (sorted.length === 0) return null;
	return sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))] ?? null;
}

/** Who finds less than the others by more than chance: for training, not for blame. */
function inspectors(rows: Awaited<ReturnType<typeof inspectorCounts>>) {
	const all = rows.reduce(
		(sum, { runs, found }) => ({ runs: sum.runs + runs, found: sum.found + found }),
		{
			runs: 0,
			found: 0
		}
	);
	const tested = rows.map(({ runs, found }) =>
		all.runs > runs
			? compareGroups([
					{ trials: runs, failures: found },
					{ trials: all.runs - runs, failures: all.found - found }
				]).pValue
			: 1
	);
	const adjusted = falseDiscovery(tested);
	return rows.map((row, i) => ({
		...row,
		share: wilson(row.found, row.runs),
		pValue: adjusted[i] ?? 1,
		less: row.found / row.runs < all.found / Math.max(1, all.runs)
	}));
}
