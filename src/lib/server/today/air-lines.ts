import { familiesWhere } from '../../../core/data/family-records.ts';
import { groupBy } from '../../../core/group-by.ts';
import { BENCH_MINUTES } from '../../../core/plan/agenda.ts';
import { plusDays, readable } from '../../../core/plan/calendar.ts';
import type { ItemState } from '../../../core/readiness/findings.ts';
import { boardFeed } from '../air/board.ts';
import { cylindersOf } from '../air/cylinder-facts.ts';
import { listSources } from '../air/sources.ts';
import { heldOfFamilies } from '../db/queries/fills.ts';
import type { Context } from '../kernel/context.ts';
import { dayAt } from '../kernel/site.ts';
import type { AgendaLine } from './line.ts';

/** Families that are filled. */
const CYLINDERS = familiesWhere((f) => f.air === 'cylinder');
/** An air test that is good for less than this is to be done. Site default. */
const SOON_DAYS = 14;
const MARKS: Record<string, ItemState> = {
	failed: 'held',
	untested: 'held',
	overdue: 'overdue',
	'in force': 'due'
};

/** What the shift sheet says of the air: who is in, sources whose air is in question, cylinders held for what is in them. */
export async function airLines(context: Context, asOf: string): Promise<AgendaLine[]> {
	const { db } = context;
	const [board, sources, held] = [
		await boardFeed(db).load(),
		await listSources(context),
		await heldOfFamilies(db, CYLINDERS)
	];
	const line = (part: Omit<AgendaLine, 'minutes'>): AgendaLine => ({
		...part,
		minutes: BENCH_MINUTES[part.kind]
	});
	const lines = board.teams.map((team) => {
		const inside = team.wearers.filter((wearer) => wearer.endedAt === null);
		return line({
			key: `team:${team.id}`,
			kind: 'inside',
			tag: `Team ${team.number}`,
			state: 'issued',
			href: '/air/board',
			on: dayAt(new Date(team.wearers[0]?.startedAt ?? 0), context.site.timeZone),
			title: `${inside.length} ${inside.length === 1 ? 'is' : 'are'} in: ${team.task}`,
			detail: inside.map((wearer) => wearer.wearer).join(', ')
		});
	});
	for (const { source, state } of sources) {
		const inForce = state.outcome === 'in force';
		if (inForce && (state.until ?? '') > plusDays(asOf, SOON_DAYS)) continue;
		lines.push(
			line({
				key: `source:${source.id}`,
				kind: 'air',
				tag: 'Air',
				state: MARKS[state.outcome] ?? 'held',
				on: state.until ?? asOf,
				href: `/air/tests/${source.id}`,
				title: inForce
					? `Have the air of ${source.name} tested by ${readable(state.until ?? asOf)}`
					: `${source.name} gives no air out`,
				detail: state.reasons[0]?.text ?? ''
			})
		);
	}
	const ids = held.map((row) => row.id);
	const known = await cylindersOf(db, ids, context.site.timeZone);
	const failed = held.flatMap((row) => {
		const air = known.get(row.id)?.airFailed;
		return air ? [{ ...air, tag: row.tag }] : [];
	});
	for (const [id, cylinders] of groupBy(failed, (one) => one.sourceId)) {
		const tags = cylinders.map((one) => one.tag);
		lines.push(
			line({
				key: `air-failed:${id}`,
				kind: 'air',
				tag: 'Air',
				state: 'held',
				on: asOf,
				href: `/air/tests/${id}`,
				title: `${tags.length} ${tags.length === 1 ? 'cylinder holds' : 'cylinders hold'} air of ${cylinders[0]?.source} that failed`,
				detail: `Let down and fill anew: ${tags.slice(0, 8).join(', ')}${tags.length > 8 ? ' …' : ''}`
			})
		);
	}
	for (const row of held)
		if (known.get(row.id)?.pressureBar === null)
			lines.push(
				line({
					key: `unknown:${row.id}`,
					kind: 'held',
					tag: row.tag,
					state: 'held',
					on: asOf,
					title: 'What is left in it is not known',
					detail: `Read its gauge and note it, ${row.place}.`,
					href: `/air/cylinders/${row.tag}`
				})
			);
	return lines;
}
