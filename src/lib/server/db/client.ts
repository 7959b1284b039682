import { drizzle, type PostgresJsDatabase } from 'drizzle-orm/postgres-js';
import { migrate } from 'drizzle-orm/postgres-js/migrator';
import postgres from 'postgres';
import * as schema from './schema/index.ts';

export type Database = PostgresJsDatabase<typeof schema>;
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
	const client = postgres(url, {
		max,
		connect_timeout: 5,
		idle_timeout: 60,
		onnotice: () => {},
		connection: { application_name: 'grevan', statement_timeout: 15_000 }
	});
	const logger = onQuery ? { logQuery: onQuery } : false;
	return { db: drizzle(client, { schema, logger }), close: () => client.end({ timeout: 5 }) };
}

/** Brings the database to the newest migration. */
export async function migrateDatabase(url: string, folder: string): Promise<void> {
	const client = postgres(url, { max: 1, onnotice: () => {} });
	try {
		await migrate(drizzle(client), { migrationsFolder: folder });
	} finally {
		await client.end();
	}
}
