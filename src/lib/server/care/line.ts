import { routeOf } from '../../../core/data/care-routes.ts';
import type { Where } from '../../../core/custody/custody.ts';
import { awayFromShelf } from '../db/queries/custody.ts';
import { readyAgainOn } from '../db/queries/care.ts';
import { type Reader, todayOf } from '../kernel/context.ts';
import { endedBatches, openBatches } from './batch-lists.ts';

/** The stations of the line, in their order. */
const LINE: readonly Where[] = ['returned', 'wash', 'drying', 'bench', 'filling'];
const SHOWN = 8;

/** The wash line at a glance: what waits at each station and since when, the batches, what is ready again today. */
export async function washLine(context: Reader) {
	const { db, site } = context;
	const [away, open, ended, ready] = await Promise.all([
		awayFromShelf(db),
		openBatches(db),
		endedBatches(db, SHOWN),
		readyAgainOn(db, todayOf(context), site.timeZone)
	]);
	const rows = away.map(({ itemId, tag, family, size, where, since, number, note }) => ({
		itemId,
		tag,
		family,
		size,
		where,
		since,
		number,
		note,
		cleaned: routeOf(family).cleaned
	}));
	return {
		stations: LINE.map((where) => {
			const here = rows.filter((row) => row.where === where);
			return { where, count: here.length, oldest: here[0]?.since ?? null };
		}),
		dirty: rows.filter(({ where }) => where === 'returned'),
		drying: rows.filter(({ where }) => where === 'drying'),
		batches: open,
		ended,
		ready
	};
}
