import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { sql } from 'drizzle-orm';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import * as schema from './schema/index.ts';

export type Database = NodePgDatabase<typeof schema>;
/** A transaction offers what the database does. */
export type Connection = Database | Parameters<Parameters<Database['transaction']>[0]>[0];

export interface OpenDatabase {
	db: Database;
	close: () => Promise<void>;
}

/**
 * How long anything may take, ms: a process that froze while it held a lock, or a line that is half dead, costs the
 * others seconds. The database ends what takes too long; where it does not answer at all, this side gives up.
 */
const PATIENCE = {
	statement_timeout: 15_000,
	lock_timeout: 8000,
	idle_in_transaction_session_timeout: 30_000,
	query_timeout: 20_000
} as const;

/** Where nobody waits for it, as while a database is filled before anybody comes in. */
const UNHURRIED = { ...PATIENCE, statement_timeout: 0, query_timeout: 0 };

/**
 * Opens a pool. Lost connections are made anew by the next query.
 * @param options.unhurried a statement may take as long as it takes
 */
export function openDatabase(
	url: string,
	{
		max = 10,
		unhurried = false,
		onQuery
	}: {
		max?: number;
		unhurried?: boolean;
		onQuery?: (query: string, parameters: unknown[]) => void;
	} = {}
): OpenDatabase {
	const pool = new pg.Pool({
		connectionString: url,
		max,
		connectionTimeoutMillis: 5000,
		idleTimeoutMillis: 60_000,
		...(unhurried ? UNHURRIED : PATIENCE),
		keepAlive: true,
		keepAliveInitialDelayMillis: 5000,
		application_name: 'grevan'
	});
	keepStatements(pool);
	// A lost connection is the fault of the query that used it, never the end of the process.
	pool.on('error', () => {});
	pool.on('connect', (client) => client.on('error', () => {}));
	const logger = onQuery ? { logQuery: onQuery } : false;
	return { db: drizzle(pool, { schema, logger }), close: () => pool.end() };
}

/**
 * A limit as part of the text: with it the database knows how few rows are wanted when it plans, and keeps the plan.
 * Only for limits that the program sets.
 */
export const atMost = (rows: number): number =>
	// The builder takes any expression; its types name a placeholder only.
	sql.raw(String(Math.trunc(rows))) as unknown as number;

/** Most statements that a connection keeps the plan of. */
const KEPT = 500;

/**
 * Gives each text of a query a name of its own, so that a connection parses and plans it once: for the lists that
 * join many tables planning is most of the work. Texts beyond the first so many stay without.
 */
function keepStatements(pool: pg.Pool): void {
	const names = new Map<string, string>();
	const nameOf = (text: string): string | undefined => {
		if (!names.has(text) && names.size < KEPT) names.set(text, `q${names.size}`);
		return names.get(text);
	};
	pool.on('connect', (client) => {
		const query = client.query.bind(client) as (...args: unknown[]) => unknown;
		const named = (first: unknown, ...rest: unknown[]) => {
			const config = first as { text?: unknown; name?: string };
			const name = typeof config.text === 'string' && rest.length ? nameOf(config.text) : undefined;
			return query(name ? { ...config, name } : first, ...rest);
		};
		client.query = named as typeof client.query;
	});
}

/** Brings the database to the newest migration. */
export async function migrateDatabase(url: string, folder: string): Promise<void> {
	const pool = new pg.Pool({ connectionString: url, max: 1 });
	try {
		await migrate(drizzle(pool), { migrationsFolder: folder });
	} finally {
		await pool.end();
	}
}
