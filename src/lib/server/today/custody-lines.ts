import { BENCH_MINUTES } from '../../../core/plan/agenda.ts';
import { readable } from '../../../core/plan/calendar.ts';
import { awayNow, byPerson } from '../custody/where.ts';
import type { Context } from '../kernel/context.ts';
import { may } from '../kernel/permissions.ts';
import { dayAt } from '../kernel/site.ts';
import type { AgendaLine } from './line.ts';

/** Who has what out, what should be back, and what is dirty and waits; whose names are seen by whoever may see them. */
export async function custodyToday(context: Context) {
	const { db, site } = context;
	const names = may(context.actor.role, 'see wearers');
	const away = await awayNow(db, context.now());
	const dirty = away.filter(({ where }) => where === 'returned');
	const [oldest] = dirty;
	const lines: AgendaLine[] = away
		.filter(({ overdue }) => overdue)
		.map((row) => ({
			key: `not-back:${row.itemId}`,
			kind: 'not-back',
			tag: row.tag,
			state: 'issued',
			on: dayAt(row.dueBackAt ?? row.since, site.timeZone),
			title: names ? `Should be back from ${row.name}` : 'Should be back',
			detail: `${row.task ?? 'for no one task'}, out since ${readable(dayAt(row.since, site.timeZone))}`,
			href: '/counter/where?at=issued',
			minutes: BENCH_MINUTES['not-back']
		}));
	if (oldest)
		lines.push({
			key: 'dirty',
			kind: 'dirty',
			tag: 'Wash',
			state: 'in wash',
			on: dayAt(oldest.since, site.timeZone),
			title: `${dirty.length} ${dirty.length === 1 ? 'waits' : 'wait'} for the wash`,
			detail: dirty
				.slice(0, 6)
				.map(({ tag }) => tag)
				.join(', '),
			href: '/wash',
			minutes: BENCH_MINUTES.dirty * dirty.length
		});
	const out = byPerson(away);
	return {
		lines,
		out: names ? out : [],
		things: away.filter(({ where }) => where === 'issued').length
	};
}
