import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
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

/** Opens a pool. Lost connections are made anew by the next query. */
export function openDatabase(
	url: string,
	{
		max = 10,
		onQuery
	}: { max?: number; onQuery?: (query: string, parameters: unknown[]) => void } = {}
): OpenDatabase {
	const pool = new pg.Pool({
		connectionString: url,
		max,
		connectionTimeoutMillis: 5000,
		idleTimeoutMillis: 60_000,
		statement_timeout: 15_000,
		keepAlive: true,
		application_name: 'grevan'
	});
	// A lost connection is the fault of the query that used it, never the end of the process.
	pool.on('error', () => {});
	pool.on('connect', (client) => client.on('error', () => {}));
	const logger = onQuery ? { logQuery: onQuery } : false;
	return { db: drizzle(pool, { schema, logger }), close: () => pool.end() };
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
