import pg from 'pg';
import { attempt } from '../lib/process.mjs';
import { Stop } from '../lib/say.mjs';
import { postgresBin } from '../lib/system.mjs';

/** A program of PostgreSQL against a database; its password does not stand in the list of processes. */
export async function tool(program: string, url: string, args: string[]): Promise<string> {
	const bin = postgresBin();
	if (!bin)
		throw new Stop(
			`PostgreSQL’s own programs are not on this machine: ${program} is needed. See the README on backups of an outside database.`
		);
	const at = new URL(url);
	const password = decodeURIComponent(at.password);
	at.password = '';
	const { code, output } = await attempt(`${bin}/${program}`, ['-d', at.href, ...args], {
		env: { ...process.env, PGPASSWORD: password, LC_ALL: 'C.UTF-8' }
	});
	if (code !== 0) throw new Stop(`${program} ended with ${code}.\n${output.trim().slice(-2000)}`);
	return output;
}

/** What a copy holds, as PostgreSQL reads it. @throws Stop where it cannot be read */
export async function contentsOf(dump: string): Promise<string[]> {
	const bin = postgresBin();
	if (!bin)
		throw new Stop('PostgreSQL’s own programs are not on this machine: pg_restore is needed.');
	const { code, output } = await attempt(`${bin}/pg_restore`, ['--list', dump]);
	if (code !== 0)
		throw new Stop(`The copy in the backup cannot be read.\n${output.trim().slice(-500)}`);
	return output.split('\n').filter((line) => /^\d/.test(line));
}

/** The address of another database of the same server. */
export function databaseAt(url: string, name: string): string {
	const at = new URL(url);
	at.pathname = `/${name}`;
	return at.href;
}

/** Works with one connection and closes it. */
export async function connected<T>(
	url: string,
	work: (client: pg.Client) => Promise<T>
): Promise<T> {
	const client = new pg.Client({ connectionString: url });
	await client.connect();
	try {
		return await work(client);
	} finally {
		await client.end();
	}
}

/** Rows of each table of the record; of what only runs by, none is counted. */
export async function rowsOf(client: pg.Client): Promise<Record<string, number>> {
	const { rows } = await client.query<{ name: string }>(
		`select table_name as name from information_schema.tables
			where table_schema = 'public' and table_type = 'BASE TABLE' order by 1`
	);
	const counts: Record<string, number> = {};
	for (const { name } of rows) {
		const found = await client.query<{ n: string }>(
			`select count(*) as n from ${pg.escapeIdentifier(name)}`
		);
		counts[name] = Number(found.rows[0]?.n);
	}
	return counts;
}

/** The end of the log, the number of migrations and the name of the site. */
export async function stateOf(client: pg.Client) {
	const log = await client.query<{ seq: string; hash: string }>('select seq, hash from audit_head');
	const migrations = await client.query<{ n: string }>(
		'select count(*) as n from drizzle.__drizzle_migrations'
	);
	const site = await client.query<{ name: string }>('select name from site limit 1');
	return {
		log: { seq: Number(log.rows[0]?.seq ?? 0), hash: log.rows[0]?.hash ?? '' },
		migrations: Number(migrations.rows[0]?.n),
		site: site.rows[0]?.name ?? ''
	};
}
