import {
	fieldOf,
	type Register,
	type RegisterKey,
	type RegisterRow,
	REGISTERS
} from '../../../core/records/registers.ts';
import { writeTable } from '../../../core/csv/table.ts';
import { type Day, plusDays } from '../../../core/plan/calendar.ts';
import { startOf } from '../../../core/plan/moments.ts';
import { isKeyOf, registerRows } from '../db/queries/registers.ts';
import type { Context } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';

/** Rows of one statement, and the most of one file. Site. */
const [PART, MOST] = [1000, 200_000];

/** A period by its first and last day; null: from the first or to the last there is. */
export interface Period {
	from: Day | null;
	to: Day | null;
}

/** @throws Refusal where there is no such register */
export function registerNamed(key: string): RegisterKey {
	if (!Object.hasOwn(REGISTERS, key))
		throw new Refusal('not found', `There is no register “${key}”.`, 'register');
	return key as RegisterKey;
}

function bounds({ site }: Context, register: Register, { from, to }: Period) {
	if ((from || to) && !register.period)
		throw new Refusal(
			'invalid',
			`${register.name} hold until they change: they have no period.`,
			'from'
		);
	if (from && to && from > to)
		throw new Refusal('invalid', 'The last day lies before the first.', 'to');
	return {
		from: from ? startOf(from, site.timeZone) : undefined,
		to: to ? startOf(plusDays(to, 1), site.timeZone) : undefined
	};
}

/** A page of a register, in an order that stays, its rows by field. @returns also what the next page begins after; null: it is the last */
export async function registerPage(
	context: Context,
	key: RegisterKey,
	asked: Period & { after: string | null; limit: number }
): Promise<{ rows: RegisterRow[]; next: string | null }> {
	const register = REGISTERS[key];
	requirePermission(context.actor.role, register.see);
	if (asked.after !== null && !isKeyOf(key, asked.after))
		throw new Refusal('invalid', 'It is none of the “next” that a page of it gave.', 'after');
	const { rows, last } = await registerRows(context.db, key, {
		...bounds(context, register, asked),
		after: asked.after,
		limit: asked.limit
	});
	return {
		rows: rows.map((row) =>
			Object.fromEntries(Object.entries(row).map(([heading, cell]) => [fieldOf(heading), cell]))
		),
		next: rows.length === asked.limit ? last : null
	};
}

/**
 * All rows of a register, by its period where it has one, the oldest first.
 * @throws Refusal where they are too many for one file
 */
export async function registerRowsOf(
	context: Context,
	key: RegisterKey,
	period: Period
): Promise<RegisterRow[]> {
	const register: Register = REGISTERS[key];
	requirePermission(context.actor.role, register.see);
	const within = bounds(context, register, period);
	const rows: RegisterRow[] = [];
	for (let after: string | null = null; ;) {
		const page = await registerRows(context.db, key, { ...within, after, limit: PART });
		rows.push(...page.rows);
		if (page.rows.length < PART) break;
		if (rows.length > MOST)
			throw new Refusal(
				'too much',
				`${register.name}: more than ${MOST.toLocaleString('en-GB')} rows. Ask for a shorter period.`,
				'from'
			);
		after = page.last;
	}
	const { period: by } = register;
	if (by) rows.sort((a, b) => String(a[by]).localeCompare(String(b[by])));
	return rows;
}

/** Rows of a register as CSV. */
export function csvOf(key: RegisterKey, rows: readonly RegisterRow[]): string {
	const columns = Object.keys(REGISTERS[key].columns).map((name) => ({
		name,
		write: (row: RegisterRow) => cellText(row[name])
	}));
	return `\uFEFF${writeTable(rows, columns)}`;
}

/** A whole register as CSV, by its period where it has one. */
export const registerCsv = async (
	context: Context,
	key: RegisterKey,
	period: Period
): Promise<string> => csvOf(key, await registerRowsOf(context, key, period));

function cellText(cell: RegisterRow[string] | undefined): string | number | undefined {
	if (typeof cell === 'boolean') return cell ? 'yes' : 'no';
	return cell ?? undefined;
}
