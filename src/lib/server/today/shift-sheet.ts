import { FAMILIES, stationOf } from '../../../core/data/families.ts';
import { rejectCode } from '../../../core/data/reject-codes.ts';
import { repairFor } from '../../../core/data/repair-choice.ts';
import { repairOf } from '../../../core/data/repairs.ts';
import {
	type AgendaKind,
	BENCH_MINUTES,
	byConsequence,
	dueMinutes,
	dueWords,
	lastDayWords
} from '../../../core/plan/agenda.ts';
import { plusDays, readable } from '../../../core/plan/calendar.ts';
import type { ItemState } from '../../../core/readiness/findings.ts';
import type { Connection } from '../db/client.ts';
import { type DueRow, duesNow, duesOver } from '../db/queries/dues.ts';
import { type ItemRow, itemsWatched } from '../db/queries/items.ts';
import { statesByPlace } from '../db/queries/stock.ts';
import { openDefects } from '../faults/faults.ts';
import { openAlarms } from '../teach/clusters.ts';
import { openJobs } from '../faults/jobs.ts';
import { openFlags } from '../hazards/plans.ts';
import { openRuns } from '../inspection/runs.ts';
import { type Context, todayOf } from '../kernel/context.ts';
import { may } from '../kernel/permissions.ts';
import { dayAt } from '../kernel/site.ts';
import { untilRecorded } from '../kernel/until-recorded.ts';
import { airLines } from './air-lines.ts';
import { custodyToday } from './custody-lines.ts';
import { peopleDues, type PeopleDue } from '../people/dues.ts';
import { plannedNow } from '../plan/day.ts';
import { missingHere } from '../site/so-far.ts';
import type { AgendaLine } from './line.ts';

/** What stands ready at a place against its floor. */
export interface ShelfRow {
	placeId: string;
	place: string;
	family: string;
	floor: number;
	counts: Partial<Record<ItemState, number>>;
	/** Ready and due: what may be taken. */
	usable: number;
}

/** The places that keep so many of a family ready. */
export interface Shelf {
	family: string;
	name: string;
	rows: ShelfRow[];
	usable: number;
	floor: number;
	/** Places with fewer than their floor. */
	short: number;
}

const LINES_PER_KIND = 30;
/** Dues that are read to choose the lines from: the plan may have another order than their last days. */
const DUE_READ = 200;
/** How far ahead the shift sheet looks at what lapses of people: a test takes an appointment. Site default. */
const PEOPLE_AHEAD_DAYS = 14;

/** The shift sheet: what to do next in order of consequence, and what is ready against the floor. */
export async function today(context: Context) {
	const [sheet, custody] = await Promise.all([
		untilRecorded(context, 'today', () => shiftSheet(context)),
		// What should be back by now goes by the clock, and is not kept.
		custodyToday(context)
	]);
	const sees = may(context.actor.role, 'see wearers');
	// What lapses of people is not for everybody to see; the sheet itself is kept for all.
	const kept = sees
		? sheet.lines
		: sheet.lines.filter(({ kind }) => kind !== 'person-over' && kind !== 'person-due');
	const lines = [...kept, ...custody.lines].sort(byConsequence);
	const { out, things } = custody;
	return { ...sheet, lines, minutes: minutesOf(lines), out, things };
}

const minutesOf = (lines: readonly AgendaLine[]): number =>
	lines.reduce((sum, line) => sum + line.minutes, 0);

async function shiftSheet(context: Context) {
	const { db, site } = context;
	const asOf = todayOf(context);
	const day = (moment: Date) => dayAt(moment, site.timeZone);
	const [
		rows,
		held,
		overdue,
		due,
		watched,
		runs,
		waiting,
		flags,
		air,
		missing,
		people,
		planned,
		clusters
	] = await Promise.all([
		shelf(db, asOf),
		openDefects(db, LINES_PER_KIND * 2),
		duesOver(db, asOf, LINES_PER_KIND),
		duesNow(db, asOf, DUE_READ),
		itemsWatched(db, asOf, LINES_PER_KIND),
		openRuns(db),
		openJobs(db, LINES_PER_KIND),
		openFlags(db, LINES_PER_KIND),
		airLines(context, asOf),
		missingHere(db, site),
		peopleDues(db, asOf, plusDays(asOf, PEOPLE_AHEAD_DAYS)),
		plannedNow(context),
		openAlarms(db)
	]);
	const short = new Set(rows.filter((row) => row.usable < row.floor).map(shelfKey));
	const inService = new Set(waiting.map((w) => w.tag));
	const lines: AgendaLine[] = [
		...air,
		...flags.map((row) => flagLine(row, day(row.flag.raisedAt))),
		...clusters.map((row) => clusterLine(row, day(row.raisedAt))),
		...held
			.filter((row) => !inService.has(row.tag) && row.defect.severity !== 'note')
			.map((row) => heldLine(row, short, day(row.defect.reportedAt))),
		...waiting.map((row) => jobLine(row, day(row.job.startedAt))),
		...overdue.map((row) => dueLine(row, asOf, short, planned)),
		...due
			.map((row) => dueLine(row, asOf, short, planned))
			.sort(byConsequence)
			.slice(0, LINES_PER_KIND),
		...watched.filter((row) => row.state === 'ready').map(watchedLine),
		...runs.map((run) => runLine(run, day(run.startedAt))),
		...people.slice(0, LINES_PER_KIND).map((one) => personLine(one, asOf))
	];
	lines.sort(byConsequence);
	return {
		asOf,
		lines,
		missing,
		shelves: byFamily(rows),
		minutes: minutesOf(lines)
	};
}

const personLine = (one: PeopleDue, asOf: string): AgendaLine => {
	const over = one.on < asOf;
	const kind: AgendaKind = over ? 'person-over' : 'person-due';
	return {
		key: `person:${one.key}`,
		kind,
		tag: one.number || 'People',
		state: over ? 'overdue' : 'due',
		on: one.on,
		title: one.says,
		detail: one.name,
		href: one.href,
		minutes: one.what === 'fit test' ? BENCH_MINUTES[kind] : 0
	};
};

async function shelf(db: Connection, asOf: string): Promise<ShelfRow[]> {
	const rows = await statesByPlace(db, asOf);
	return rows.map((row) => ({ ...row, usable: row.counts.ready + row.counts.due }));
}

const shelfKey = ({ place, family }: Pick<ShelfRow, 'place' | 'family'>) => `${place}\n${family}`;

/** The shelves by family, those that run short first, then in the order of the register. */
function byFamily(rows: readonly ShelfRow[]): Shelf[] {
	const sum = (of: readonly ShelfRow[], what: 'usable' | 'floor') =>
		of.reduce((total, row) => total + row[what], 0);
	return FAMILIES.flatMap(({ family, plural }) => {
		const own = rows.filter((row) => row.family === family);
		if (own.length === 0) return [];
		const short = own.filter((row) => row.usable < row.floor).length;
		const [usable, floor] = [sum(own, 'usable'), sum(own, 'floor')];
		return [{ family, name: plural, rows: own, usable, floor, short }];
	}).sort((a, b) => Number(b.short > 0) - Number(a.short > 0));
}

const flagLine = (row: Awaited<ReturnType<typeof openFlags>>[number], on: string): AgendaLine => ({
	key: `flag:${row.flag.id}`,
	kind: 'flag',
	tag: `Plan ${row.number}`,
	state: 'held',
	on,
	title: `In question: ${row.task}`,
	detail: row.flag.text,
	href: `/hazards/${row.flag.planId}`,
	minutes: BENCH_MINUTES.flag
});

const clusterLine = (
	row: Awaited<ReturnType<typeof openAlarms>>[number],
	on: string
): AgendaLine => ({
	key: `cluster:${row.id}`,
	kind: 'cluster',
	tag: 'Record',
	state: 'overdue',
	on,
	title: `${row.name}: more faults than chance allows`,
	detail: `${row.faults} faults where ${row.expected.toFixed(1)} were to be expected, since ${readable(on)}. See what is behind it.`,
	href: '/faults/learn',
	minutes: BENCH_MINUTES.cluster
});

function heldLine(
	row: Awaited<ReturnType<typeof openDefects>>[number],
	short: Set<string>,
	on: string
): AgendaLine {
	const watch = row.defect.severity === 'watch';
	return {
		key: `defect:${row.defect.id}`,
		kind: watch ? 'watch' : 'held',
		tag: row.tag,
		state: watch ? 'due' : 'held',
		severity: row.defect.severity,
		belowFloor: short.has(shelfKey(row)),
		on,
		title: `${stationOf(row.family, row.defect.station).name}: ${rejectCode(row.defect.code).name}`,
		detail: `${watch ? 'Watched' : 'Held'} since ${readable(on)}, ${row.place}. Usual repair: ${repairFor(row.defect.code, row.defect.station, row.family).name.toLowerCase()}.`,
		href: `/faults/${row.defect.id}`,
		minutes: watch ? 0 : BENCH_MINUTES.held
	};
}

function jobLine(row: Awaited<ReturnType<typeof openJobs>>[number], on: string): AgendaLine {
	const done = row.job.doneAt !== null;
	return {
		key: `job:${row.job.id}`,
		kind: done ? 'release' : 'held',
		tag: row.tag,
		state: 'in service',
		on,
		title: done
			? 'Repaired: inspect, then release'
			: `Repair under way: ${repairOf(row.job.repair).name.toLowerCase()}`,
		detail: row.place,
		href: `/items/${row.tag}`,
		minutes: BENCH_MINUTES[done ? 'release' : 'held']
	};
}

function dueLine(
	row: DueRow,
	asOf: string,
	short: Set<string>,
	planned: Awaited<ReturnType<typeof plannedNow>>
): AgendaLine {
	const job = planned.get(`item:${row.id}:${row.dueWhat}:${row.dueDetail}:0`);
	const filters = row.dueWhat === 'filters';
	const over = row.dueOn < asOf;
	const kind: AgendaKind = over
		? filters
			? 'filters-over'
			: 'overdue'
		: filters
			? 'filters-due'
			: 'due';
	const never = row.lastInspectionOn === null && row.dueWhat === 'inspection';
	return {
		key: `due:${row.id}:${row.dueWhat}:${row.dueDetail}`,
		kind,
		tag: row.tag,
		state: over ? 'overdue' : 'due',
		belowFloor: short.has(shelfKey(row)),
		on: row.dueOn,
		...(job ? { planned: job.day } : {}),
		title: never
			? 'Never inspected here'
			: `${dueWords(row.dueWhat, row.dueDetail)}, ${lastDayWords({ on: row.dueOn, left: row.dueLeft }, asOf)}`,
		detail: [
			row.watchedFor,
			job &&
				(job.day <= asOf
					? `Planned for today, ${job.who}.`
					: `Planned for ${readable(job.day)}, ${job.who}.`),
			`${row.model}, size ${row.size}, ${row.set ? `on ${row.set}, ` : ''}${row.place}`
		]
			.filter(Boolean)
			.join(' '),
		href: `/items/${row.tag}`,
		minutes: filters ? BENCH_MINUTES[kind] : dueMinutes(row.dueWhat)
	};
}

const watchedLine = (row: ItemRow): AgendaLine => ({
	key: `watch:${row.id}`,
	kind: 'watch',
	tag: row.tag,
	state: row.state,
	on: row.dueOn,
	title: `Watched; inspection, last day ${readable(row.dueOn)}`,
	detail: `${row.watchedFor} ${row.place}.`,
	href: `/items/${row.tag}`,
	minutes: 0
});

const runLine = (run: Awaited<ReturnType<typeof openRuns>>[number], on: string): AgendaLine => ({
	key: `run:${run.id}`,
	kind: 'running',
	tag: run.tag,
	state: 'due',
	on,
	title: 'Inspection begun and not signed',
	detail: `Started by ${run.by}`,
	href: `/runs/${run.id}`,
	minutes: BENCH_MINUTES.running
});
