import pg from 'pg';
import PgBoss from 'pg-boss';

/** Schema of the queue, apart from the record. */
export const QUEUE_SCHEMA = 'jobs';

/** Tables of which rows come and go; of every other nothing is ever deleted. */
const PASSING = [
	'audit_pending',
	'barred_day',
	'bench_chunk',
	'device',
	'import_progress',
	'invite',
	'entry_count',
	'item_due',
	'item_state',
	'lease',
	'personal_item',
	'plan_pin',
	'planned_job',
	'rate_limit',
	'run_timer',
	'second_screen',
	'session',
	'sign_in_failure',
	'stock_count',
	'wearer_name',
	'wearer_place',
	'two_factor',
	'verification',
	'write_request'
];
/** Written by the database itself as a transaction commits. */
const CHAIN = ['audit_entry', 'audit_head'];

const quoted = (name: string) => `"${name.replaceAll('"', '""')}"`;

/**
 * Gives the role of the application what it needs and no more: it owns nothing, deletes no record, changes nothing that
 * is append-only, and reads the chain of the log only. Called by the owner after migrating.
 * @param ownerUrl the role that migrated
 * @param appUrl the role that the application comes in with; made where it is not there and the owner may make roles
 */
export async function grantApplication(ownerUrl: string, appUrl: string): Promise<void> {
	const app = new URL(appUrl);
	const [role, password] = [decodeURIComponent(app.username), decodeURIComponent(app.password)];
	const owner = new pg.Client({ connectionString: ownerUrl });
	await owner.connect();
	const run = (text: string) => owner.query(text);
	try {
		const [made, database] = [
			(await owner.query('select 1 from pg_roles where rolname = $1', [role])).rowCount,
			(await owner.query<{ name: string }>('select current_database() as name')).rows[0]?.name ?? ''
		];
		const attributes = 'login nosuperuser nocreatedb nocreaterole noreplication nobypassrls';
		if (!made)
			await run(
				`create role ${quoted(role)} ${attributes} password ${owner.escapeLiteral(password)}`
			);
		const to = quoted(role);
		// A role that is there with another password, from an installation whose secrets are gone.
		if (made && !(await opens(appUrl)))
			await run(`alter role ${to} password ${owner.escapeLiteral(password)}`);
		await run(`grant connect on database ${quoted(database)} to ${to}`);
		await run('begin');
		await run(`revoke all on all tables in schema public from ${to}`);
		await run(`grant usage on schema public to ${to}`);
		await run(`grant select, insert, update on all tables in schema public to ${to}`);
		await run(`grant usage on all sequences in schema public to ${to}`);
		await run(`grant execute on function undo_table_import(uuid, integer) to ${to}`);
		await run(`grant execute on function drop_retained(text, timestamptz, integer) to ${to}`);
		// Which schema it is on: an archive says so.
		await run(`grant usage on schema drizzle to ${to}`);
		await run(`grant select on drizzle.__drizzle_migrations to ${to}`);
		for (const table of PASSING) await run(`grant delete on ${quoted(table)} to ${to}`);
		for (const table of CHAIN) await run(`revoke insert, update on ${quoted(table)} from ${to}`);
		await run(`revoke select, update, delete on audit_pending from ${to}`);
		const appendOnly = await owner.query<{ name: string }>(
			`select distinct c.relname as name from pg_trigger t join pg_class c on c.oid = t.tgrelid
				join pg_proc p on p.oid = t.tgfoid where p.proname = 'refuse_change' and not t.tgisinternal`
		);
		for (const { name } of appendOnly.rows)
			await run(`revoke update on ${quoted(name)} from ${to}`);
		await run('commit');
		// The queue makes and changes tables of its own; an earlier one may belong to the owner.
		const queue = await owner.query<{ owner: string }>(
			'select nspowner::regrole::text as owner from pg_namespace where nspname = $1',
			[QUEUE_SCHEMA]
		);
		if (queue.rows[0] && queue.rows[0].owner.replaceAll('"', '') !== role)
			await run(`drop schema ${quoted(QUEUE_SCHEMA)} cascade`);
		await run(`grant create on database ${quoted(database)} to ${to}`);
		try {
			await installQueue(appUrl);
		} finally {
			await run(`revoke create on database ${quoted(database)} from ${to}`);
		}
	} finally {
		await owner.end();
	}
}

/** Whether a role may come in as the address says. */
async function opens(url: string): Promise<boolean> {
	const client = new pg.Client({ connectionString: url });
	try {
		await client.connect();
		return true;
	} catch (error) {
		// Neither a wrong password nor a missing grant; anything else is not mended here.
		if (!['28P01', '42501'].includes(String((error as { code?: unknown }).code))) throw error;
		return (error as { code?: unknown }).code !== '28P01';
	} finally {
		await client.end().catch(() => {});
	}
}

/** Lets the queue make its tables, as the role that works with them. */
async function installQueue(appUrl: string): Promise<void> {
	const boss = new PgBoss({
		connectionString: appUrl,
		schema: QUEUE_SCHEMA,
		supervise: false,
		schedule: false,
		max: 2
	});
	boss.on('error', () => {});
	await boss.start();
	await boss.stop({ graceful: false, wait: true });
}
