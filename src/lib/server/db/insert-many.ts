import { getTableColumns, getTableName, type SQL, sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { Connection } from './client.ts';

/** Rows that one statement takes: enough that parsing it costs nothing beside them, little enough to hold. */
const CHUNK = 5000;

/**
 * Inserts many rows by few statements, each with its rows as one JSON text: building a statement with a placeholder
 * per value costs more than the database takes for it. Columns that no row names get their default.
 * @param rows all with the same fields; dates as Date or ISO text, no bytes
 * @throws RangeError where a row has a field that the first has not, or the other way round
 */
export const insertMany = <T extends PgTable>(
	tx: Connection,
	table: T,
	rows: readonly T['$inferInsert'][]
): Promise<void> => insertReady(tx, readyRows(table, rows));

/** The first half of {@link insertMany}, without the database: its statements, made ready while that works on others. */
export function readyRows<T extends PgTable>(table: T, rows: readonly T['$inferInsert'][]): SQL[] {
	const fields = Object.keys(rows[0] ?? {});
	const columns = getTableColumns(table);
	const names = fields.map((field) => {
		const column = columns[field];
		if (!column) throw new RangeError(`${getTableName(table)} has no field ${field}.`);
		return column.name;
	});
	const list = sql.join(
		names.map((name) => sql.identifier(name)),
		sql`, `
	);
	const statements: SQL[] = [];
	for (let i = 0; i < rows.length; i += CHUNK) {
		const text = textOf(rows.slice(i, i + CHUNK), fields, names, getTableName(table));
		statements.push(
			sql`insert into ${table} (${list}) select ${list} from json_populate_recordset(null::${table}, ${text}::json)`
		);
	}
	return statements;
}

/** The second half of {@link insertMany}. */
export async function insertReady(tx: Connection, statements: readonly SQL[]): Promise<void> {
	for (const statement of statements) await tx.execute(statement);
}

/** Rows as JSON under the names of their columns. */
function textOf(
	rows: readonly object[],
	fields: readonly string[],
	names: readonly string[],
	table: string
): string {
	return JSON.stringify(
		rows.map((row) => {
			const values = row as Record<string, unknown>;
			if (Object.keys(row).length !== fields.length)
				throw new RangeError(`A row for ${table} has other fields than the first.`);
			const named: Record<string, unknown> = {};
			for (const [k, field] of fields.entries()) {
				if (!(field in values)) throw new RangeError(`A row for ${table} lacks ${field}.`);
				named[names[k] ?? field] = values[field];
			}
			return named;
		})
	);
}
