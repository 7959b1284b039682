import {
	actionsOf,
	DETAILS,
	RECORD_GROUPS,
	type RecordGroup
} from '../../../core/actions/catalogue.ts';
import { plusDays, type Day } from '../../../core/plan/calendar.ts';
import { startOf } from '../../../core/plan/moments.ts';
import { historyDays, type HistoryFilter } from '../db/queries/history.ts';
import { listPlaces } from '../hazards/plans.ts';
import { type Context, todayOf } from '../kernel/context.ts';
import { openAccounts } from '../people/wearers.ts';
import { Refusal } from '../kernel/refusal.ts';
import { itemByTag } from '../register/items.ts';
import { history } from './history.ts';

/** Entries on one page, and of one file. */
const [PAGE, FILE] = [60, 20_000];
/** Days of the small picture where none are asked for. */
const DAYS = 60;

/** What is looked for in the record; empty is everything. */
export interface RecordSearch {
	tag: string | null;
	who: string | null;
	place: string | null;
	group: RecordGroup | null;
	from: Day | null;
	to: Day | null;
	before: number | null;
}

async function filterOf(context: Context, search: RecordSearch): Promise<HistoryFilter> {
	const { db, site } = context;
	const { from, to } = search;
	if (from && to && from > to)
		throw new Refusal('invalid', 'The last day lies before the first.', 'to');
	return {
		itemId: search.tag ? (await itemByTag(db, search.tag)).item.id : undefined,
		actorId: search.who ?? undefined,
		placeId: search.place ?? undefined,
		actions: search.group ? actionsOf(search.group) : undefined,
		from: from ? startOf(from, site.timeZone) : undefined,
		to: to ? startOf(plusDays(to, 1), site.timeZone) : undefined
	};
}

/** A page of the record with how many entries each day has. */
export async function searchRecords(context: Context, search: RecordSearch) {
	const { db, site } = context;
	const filter = await filterOf(context, search);
	const today = todayOf(context);
	const last = search.to ?? today;
	const first = search.from ?? plusDays(last, 1 - DAYS);
	const [lines, days, people, places] = await Promise.all([
		history(context, { ...filter, before: search.before ?? undefined, limit: PAGE + 1 }),
		historyDays(
			db,
			{
				...filter,
				without: DETAILS,
				from: startOf(first, site.timeZone),
				to: startOf(plusDays(last, 1), site.timeZone)
			},
			site.timeZone
		),
		openAccounts(db),
		listPlaces(db)
	]);
	return {
		lines: lines.slice(0, PAGE),
		older: lines.length > PAGE ? (lines[PAGE - 1]?.seq ?? null) : null,
		days,
		first,
		last,
		people,
		places,
		groups: RECORD_GROUPS
	};
}

/** What a search finds, for a file; newest first. */
export const recordsFor = async (context: Context, search: RecordSearch) =>
	history(context, { ...(await filterOf(context, search)), details: true, limit: FILE });
