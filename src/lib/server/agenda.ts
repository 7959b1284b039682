import { asc, eq, isNull } from 'drizzle-orm';
import {
	BENCH_MINUTES,
	byConsequence,
	DUE_WORDS,
	type AgendaKind
} from '../../core/plan/agenda.ts';
import { daysBetween, plusDays, readable } from '../../core/plan/calendar.ts';
import { stationOf } from '../../core/data/families.ts';
import { rejectCode, type Severity } from '../../core/data/reject-codes.ts';
import { repairOf } from '../../core/data/repairs.ts';
import type { ItemState } from '../../core/readiness/item-state.ts';
import { airLines } from './air-agenda.ts';
import type { Context } from './context.ts';
import {
	itemsDueUntil,
	itemsInState,
	itemsWatched,
	statesByPlace,
	type ItemRow
} from './db/queries/items.ts';
import type { Connection } from './db/client.ts';
import { item, place, serviceJob } from './db/schema/index.ts';
import { openDefects } from './faults.ts';
import { openFlags } from './hazards.ts';
import { openRuns } from './inspections.ts';
import { dayAt, type Site } from './site.ts';

/** One line of the shift sheet. */
export interface AgendaLine {
	kind: AgendaKind;
	tag: string;
	state: ItemState;
	severity?: Severity;
	belowFloor?: boolean;
	on: string;
	title: string;
	detail: string;
	href: string;
	minutes: number;
}

export interface ShelfRow {
	placeId: string;
	place: string;
	floor: number;
	counts: Partial<Record<ItemState, number>>;
	/** Ready and due: what may be taken. */
	usable: number;
}

const LINES_PER_KIND = 30;
/** The floor of a place counts half masks. */
const SHELF_FAMILY = 'half-mask';
/** Rows that the plan shows at most; it says so when there are more. */
const PLAN_ROWS = 200;

/** The shift sheet: what to do next in order of consequence, and what is ready against the floor. */
export async function today(context: Context, site: Site) {
	const { db } = context;
	const asOf = dayAt(context.now(), site.timeZone);
	const [shelves, held, overdue, due, watched, runs, waiting, flags, air] = await Promise.all([
		shelf(db, asOf),
		openDefects(db, LINES_PER_KIND * 2),
		itemsInState(db, 'overdue', asOf, LINES_PER_KIND),
		itemsInState(db, 'due', asOf, LINES_PER_KIND),
		itemsWatched(db, asOf, LINES_PER_KIND),
		openRuns(db),
		openJobs(db),
		openFlags(db, LINES_PER_KIND),
		airLines(context, site, asOf)
	]);
	const short = new Set(shelves.filter((s) => s.usable < s.floor).map((s) => s.place));
	const inService = new Set(waiting.map((w) => w.tag));
	const lines: AgendaLine[] = [
		...air,
		...flags.map(flagLine),
		...held
			.filter((row) => !inService.has(row.tag) && row.defect.severity !== 'note')
			.map((row) => heldLine(row, short)),
		...waiting.map(jobLine),
		...overdue.map((row) => dueLine(row, asOf, short)),
		...due.map((row) => dueLine(row, asOf, short)),
		...watched.filter((row) => row.state === 'ready').map(watchedLine),
		...runs.map(runLine)
	];
	lines.sort(byConsequence);
	return {
		asOf,
		lines,
		shelves,
		totals: total(shelves),
		minutes: lines.reduce((sum, line) => sum + line.minutes, 0)
	};
}

/** What falls due over the coming days, day by day. */
export async function plan(context: Context, site: Site, days: number) {
	const asOf = dayAt(context.now(), site.timeZone);
	const until = plusDays(asOf, days);
	const rows = await itemsDueUntil(context.db, until, asOf, PLAN_ROWS);
	const byDay = new Map<string, ItemRow[]>();
	for (const row of rows) {
		const day = row.dueOn < asOf ? 'overdue' : row.dueOn;
		byDay.set(day, [...(byDay.get(day) ?? []), row]);
	}
	return {
		asOf,
		until,
		cut: rows.length === PLAN_ROWS,
		days: [...byDay].map(([day, items]) => ({ day, items }))
	};
}

async function shelf(db: Connection, asOf: string): Promise<ShelfRow[]> {
	const rows = await statesByPlace(db, SHELF_FAMILY, asOf);
	const shelves = new Map<string, ShelfRow>();
	for (const row of rows) {
		const line = shelves.get(row.placeId) ?? {
			placeId: row.placeId,
			place: row.place,
			floor: row.floor,
			counts: {},
			usable: 0
		};
		line.counts[row.state] = row.n;
		line.usable = (line.counts.ready ?? 0) + (line.counts.due ?? 0);
		shelves.set(row.placeId, line);
	}
	return [...shelves.values()];
}

const openJobs = (db: Connection) =>
	db
		.select({ job: serviceJob, tag: item.tag, place: place.name })
		.from(serviceJob)
		.innerJoin(item, eq(item.id, serviceJob.itemId))
		.innerJoin(place, eq(place.id, item.placeId))
		.where(isNull(serviceJob.releasedAt))
		.orderBy(asc(serviceJob.startedAt))
		.limit(LINES_PER_KIND)
		.then((rows) => rows.filter((row) => row.job.supersededAt === null));

const flagLine = (row: Awaited<ReturnType<typeof openFlags>>[number]): AgendaLine => ({
	kind: 'flag',
	tag: `Plan ${row.number}`,
	state: 'held',
	on: row.flag.raisedAt.toISOString().slice(0, 10),
	title: `In question: ${row.task}`,
	detail: row.flag.text,
	href: `/hazards/${row.flag.planId}`,
	minutes: BENCH_MINUTES.flag
});

function heldLine(
	row: Awaited<ReturnType<typeof openDefects>>[number],
	short: Set<string>
): AgendaLine {
	const watch = row.defect.severity === 'watch';
	const on = row.defect.reportedAt.toISOString().slice(0, 10);
	return {
		kind: watch ? 'watch' : 'held',
		tag: row.tag,
		state: watch ? 'due' : 'held',
		severity: row.defect.severity,
		belowFloor: short.has(row.place),
		on,
		title: `${stationOf(row.family, row.defect.station).name}: ${rejectCode(row.defect.code).name}`,
		detail: `${watch ? 'Watched' : 'Held'} since ${readable(on)}, ${row.place}. Usual repair: ${repairOf(rejectCode(row.defect.code).repair).name.toLowerCase()}.`,
		href: `/faults/${row.defect.id}`,
		minutes: watch ? 0 : BENCH_MINUTES.held
	};
}

function jobLine(row: Awaited<ReturnType<typeof openJobs>>[number]): AgendaLine {
	const done = row.job.doneAt !== null;
	return {
		kind: done ? 'release' : 'held',
		tag: row.tag,
		state: 'in service',
		on: row.job.startedAt.toISOString().slice(0, 10),
		title: done
			? 'Repaired: inspect, then release'
			: `Repair under way: ${repairOf(row.job.repair).name.toLowerCase()}`,
		detail: row.place,
		href: `/items/${row.tag}`,
		minutes: BENCH_MINUTES[done ? 'release' : 'held']
	};
}

function dueLine(row: ItemRow, asOf: string, short: Set<string>): AgendaLine {
	const left = daysBetween(asOf, row.dueOn);
	const filters = row.dueWhat === 'filters';
	const over = left < 0;
	const kind: AgendaKind = over
		? filters
			? 'filters-over'
			: 'overdue'
		: filters
			? 'filters-due'
			: 'due';
	const never = row.lastInspectionOn === null && !filters;
	return {
		kind,
		tag: row.tag,
		state: row.state,
		belowFloor: short.has(row.place),
		on: row.dueOn,
		title: never
			? 'Never inspected here'
			: `${DUE_WORDS[row.dueWhat]}, last day ${over ? 'was ' : ''}${readable(row.dueOn)}`,
		detail: [row.watchedFor, `${row.model}, size ${row.size}, ${row.place}`]
			.filter(Boolean)
			.join(' '),
		href: `/items/${row.tag}`,
		minutes: BENCH_MINUTES[kind]
	};
}

const watchedLine = (row: ItemRow): AgendaLine => ({
	kind: 'watch',
	tag: row.tag,
	state: row.state,
	on: row.dueOn,
	title: `Watched; inspection, last day ${readable(row.dueOn)}`,
	detail: `${row.watchedFor} ${row.place}.`,
	href: `/items/${row.tag}`,
	minutes: 0
});

const runLine = (run: Awaited<ReturnType<typeof openRuns>>[number]): AgendaLine => ({
	kind: 'running',
	tag: run.tag,
	state: 'due',
	on: run.startedAt.toISOString().slice(0, 10),
	title: 'Inspection begun and not signed',
	detail: `Started by ${run.by}`,
	href: `/runs/${run.id}`,
	minutes: BENCH_MINUTES.running
});

function total(shelves: ShelfRow[]): Partial<Record<ItemState, number>> {
	const sums: Partial<Record<ItemState, number>> = {};
	for (const shelf of shelves)
		for (const [state, n] of Object.entries(shelf.counts) as [ItemState, number][])
			sums[state] = (sums[state] ?? 0) + n;
	return sums;
}
