import { plusDays, readable } from '../../core/plan/calendar.ts';
import { BENCH_MINUTES } from '../../core/plan/agenda.ts';
import type { ItemState } from '../../core/readiness/item-state.ts';
import type { AgendaLine } from './agenda.ts';
import { listSources } from './air-sources.ts';
import { boardFeed } from './board.ts';
import type { Context } from './context.ts';
import { cylindersOf } from './cylinder-facts.ts';
import { heldCylinders } from './db/queries/fills.ts';
import { groupBy } from './group.ts';
import { dayAt, type Site } from './site.ts';

/** An air test that is good for less than this is to be done. Site default. */
const SOON_DAYS = 14;
const MARKS: Record<string, ItemState> = {
	failed: 'held',
	untested: 'held',
	overdue: 'overdue',
	'in force': 'due'
};

/** What the shift sheet says of the air: who is in, sources whose air is in question, cylinders held for what is in them. */
export async function airLines(context: Context, site: Site, asOf: string): Promise<AgendaLine[]> {
	const { db } = context;
	const [board, sources, held] = [
		await boardFeed(db).load(),
		await listSources(context, site),
		await heldCylinders(db)
	];
	const line = (part: Omit<AgendaLine, 'minutes'>): AgendaLine => ({
		...part,
		minutes: BENCH_MINUTES[part.kind]
	});
	const lines = board.teams.map((team) => {
		const inside = team.wearers.filter((wearer) => wearer.endedAt === null);
		return line({
			...{ kind: 'inside', tag: `Team ${team.number}`, state: 'issued', href: '/air/board' },
			on: dayAt(new Date(team.wearers[0]?.startedAt ?? 0), site.timeZone),
			title: `${inside.length} ${inside.length === 1 ? 'is' : 'are'} in: ${team.task}`,
			detail: inside.map((wearer) => wearer.wearer).join(', ')
		});
	});
	for (const { source, state } of sources) {
		if (state.outcome === 'in force' && (state.until ?? '') > plusDays(asOf, SOON_DAYS)) continue;
		lines.push(
			line({
				...{ kind: 'air', tag: 'Air', state: MARKS[state.outcome] ?? 'held' },
				...{ on: state.until ?? asOf, href: `/air/tests/${source.id}` },
				title:
					state.outcome === 'in force'
						? `Have the air of ${source.name} tested by ${readable(state.until ?? asOf)}`
						: `${source.name} gives no air out`,
				detail: state.reasons[0]?.text ?? ''
			})
		);
	}
	const ids = held.map((row) => row.id);
	const known = await cylindersOf(db, ids, site.timeZone);
	const failed = held.flatMap((row) => {
		const air = known.get(row.id)?.airFailed;
		return air ? [{ ...air, tag: row.tag }] : [];
	});
	for (const [id, cylinders] of groupBy(failed, (one) => one.sourceId)) {
		const tags = cylinders.map((one) => one.tag);
		lines.push(
			line({
				...{ kind: 'air', tag: 'Air', state: 'held', on: asOf, href: `/air/tests/${id}` },
				title: `${tags.length} ${tags.length === 1 ? 'cylinder holds' : 'cylinders hold'} air of ${cylinders[0]?.source} that failed`,
				detail: `Let down and fill anew: ${tags.slice(0, 8).join(', ')}${tags.length > 8 ? ' …' : ''}`
			})
		);
	}
	for (const row of held)
		if (known.get(row.id)?.cylinder.pressureBar === null)
			lines.push(
				line({
					...{ kind: 'held', tag: row.tag, state: 'held', on: asOf },
					title: 'What is left in it is not known',
					detail: `Read its gauge and note it, ${row.place}.`,
					href: `/air/cylinders/${row.tag}`
				})
			);
	return lines;
}
