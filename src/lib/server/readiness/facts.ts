import { type ItemTrend, itemTrends, watchedBy } from '../../../core/bench/item-trends.ts';
import { stationOf } from '../../../core/data/families.ts';
import { levelsOf } from '../../../core/data/procedures.ts';
import { groupBy } from '../../../core/group-by.ts';
import type { EventWhat } from '../../../core/plan/events.ts';
import { rulesFor, rulesOf } from '../../../core/plan/rule-scope.ts';
import type { IntervalRule, RuleSubject } from '../../../core/plan/rules.ts';
import { lacksOf } from '../../../core/readiness/complete.ts';
import { type Done, doneKey, type ItemFacts } from '../../../core/readiness/facts.ts';
import { readingLimits } from '../../../core/register/model-card.ts';
import { heldCylinder } from '../air/cylinder-facts.ts';
import type { Connection } from '../db/client.ts';
import { type AskedPast, factRows, type FactRows } from '../db/queries/facts.ts';
import { changeOf } from '../filters/change.ts';
import { dayAt, type Site } from '../kernel/site.ts';

/** What is known of an item, with what is followed of it over time. */
export interface KnownItem {
	id: string;
	tag: string;
	family: string;
	placeId: string;
	/** What rules of intervals look at. */
	subject: RuleSubject;
	setId: string | null;
	facts: ItemFacts;
	trends: ItemTrend[];
}

/** Everything that the state of some items follows from, by item; what is on a set comes with it. One statement. */
export async function loadFacts(
	db: Connection,
	itemIds: readonly string[],
	site: Pick<Site, 'timeZone' | 'ruleSet' | 'rules'>,
	options: { withSets?: boolean } = {}
): Promise<Map<string, KnownItem>> {
	if (itemIds.length === 0) return new Map();
	const rules = rulesOf(site.ruleSet, site.rules);
	return known(await factRows(db, itemIds, askedBy(rules), options), site.timeZone, rules);
}

/** What of the past rules look at; nothing else is read. */
function askedBy(rules: readonly IntervalRule[]): AskedPast {
	const events = new Set<EventWhat>();
	for (const { every } of rules) {
		if ('after' in every) events.add(every.after);
		if ('uses' in every || 'hours' in every) events.add('use');
		if ('cycles' in every) events.add('fill');
	}
	return {
		lists: rules.some(({ what }) => what === 'list'),
		services: rules.some(({ what }) => what === 'service'),
		events: [...events]
	};
}

/** When each thing that rules ask for was last done on an item, from the rows about it. */
function doneOf(
	of: {
		run: { signedAt: string } | undefined;
		benchAt: string | null;
		lists: FactRows['lists'];
		services: FactRows['services'];
	},
	day: (moment: string) => string
): Record<string, Done> {
	const done: Record<string, Done> = {};
	const keep = (key: string, at: string) => {
		const held = done[key];
		if (!held || Date.parse(at) > Date.parse(held.at)) done[key] = { on: day(at), at };
	};
	if (of.run) keep(doneKey('inspection', ''), of.run.signedAt);
	if (of.benchAt) keep(doneKey('bench test', ''), of.benchAt);
	for (const { procedure, at } of of.lists)
		for (const level of levelsOf(procedure)) keep(doneKey('list', level), at);
	for (const { repair, at } of of.services) keep(doneKey('service', repair), at);
	return done;
}

function known(
	rows: FactRows,
	timeZone: string,
	rules: readonly IntervalRule[]
): Map<string, KnownItem> {
	const of = <T extends { itemId: string }>(list: readonly T[]) => groupBy(list, (x) => x.itemId);
	const defects = of(rows.defects);
	const passed = of(rows.passed);
	const pairs = of(rows.pairs);
	const cylinders = of(rows.cylinders);
	const readings = of(rows.readings);
	const tests = of(rows.tests);
	const lists = of(rows.lists);
	const services = of(rows.services);
	const events = of(rows.events);
	const custody = of(rows.custody);
	const seals = of(rows.seals);
	const inService = new Set(rows.jobs.map((job) => job.itemId));
	const day = (moment: string) => dayAt(new Date(moment), timeZone);
	const items = new Map(
		rows.items.map((row): [string, KnownItem] => {
			const trends = itemTrends(
				(readings.get(row.id) ?? []).map((taken) => ({
					runId: taken.runId,
					step: taken.step,
					on: day(taken.signedAt),
					readings: taken.readings,
					failed: taken.value === 'reject'
				})),
				(tests.get(row.id) ?? []).map((test) => ({
					recipe: test.recipe,
					version: test.version,
					on: day(test.startedAt),
					outcome: test.outcome,
					leakPaPerMin: test.leakPaPerMin,
					reasons: test.reasons ?? []
				})),
				readingLimits(row)
			);
			const [run] = passed.get(row.id) ?? [];
			const [pair] = pairs.get(row.id) ?? [];
			const [cylinder] = cylinders.get(row.id) ?? [];
			const [seal] = row.usePattern === 'emergency' ? (seals.get(row.id) ?? []) : [];
			const benchAt = lastPassed(tests.get(row.id) ?? []);
			const facts: ItemFacts = {
				retiredOn: row.retiredOn,
				openDefects: (defects.get(row.id) ?? []).map(({ severity, code, station }) => ({
					severity,
					code,
					station: stationOf(row.family, station).name
				})),
				inService: inService.has(row.id),
				seal: seal
					? {
							number: seal.number,
							broken: seal.brokenAt
								? {
										on: day(seal.brokenAt),
										why: seal.why ?? '',
										lookedSince:
											run !== undefined && Date.parse(run.signedAt) > Date.parse(seal.brokenAt)
									}
								: null
						}
					: null,
				lastInspectionOn: run ? day(run.signedAt) : null,
				lastBenchTestOn: benchAt === null ? null : day(benchAt),
				inUseSince: row.inUseSince,
				done: doneOf(
					{
						run,
						benchAt,
						lists: lists.get(row.id) ?? [],
						services: services.get(row.id) ?? []
					},
					day
				),
				events: (events.get(row.id) ?? []).map(({ what, at, on, minutes }) => ({
					what,
					at,
					on: on ?? day(at),
					...(minutes === null ? {} : { minutes })
				})),
				rules: rulesFor(row, rules),
				watched: watchedBy(trends),
				filterChangeOn: pair ? changeOf(pair).changeOn : null,
				filtersRecalled: pair?.recalled ?? false,
				withdrawn: row.withdrawnOn ? { on: row.withdrawnOn, why: row.withdrawnWhy ?? '' } : null,
				custody: custody.get(row.id)?.[0] ?? null,
				cylinder: cylinder ? heldCylinder(cylinder, timeZone) : null
			};
			return [
				row.id,
				{
					id: row.id,
					tag: row.tag,
					family: row.family,
					placeId: row.placeId,
					subject: row,
					setId: row.setId,
					facts,
					trends
				}
			];
		})
	);
	const partsOf = groupBy([...items.values()], (one) => one.setId);
	for (const row of rows.items) {
		const one = items.get(row.id);
		const parts = partsOf.get(row.id) ?? [];
		if (!one) continue;
		one.facts.lacks = lacksOf({
			family: row.family,
			mount: row.mount,
			filterPlaces: row.filterCount,
			filters: pairs.get(row.id)?.[0]?.filters ?? 0,
			inSet: row.setId !== null,
			parts: parts.map(({ family }) => family)
		});
		if (parts.length) one.facts.parts = parts.map(({ tag, facts }) => ({ tag, facts }));
	}
	return items;
}

/** Moment of the last bench test that an item passed; null: none. */
const lastPassed = (tests: FactRows['tests']): string | null =>
	tests.findLast(({ outcome }) => outcome !== 'fail')?.startedAt ?? null;
