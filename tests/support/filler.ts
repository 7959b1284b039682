import type postgres from 'postgres';

/** A column as the catalogue of the database has it. */
interface Column {
	name: string;
	type: string;
	required: boolean;
	/** What it points to, as schema table and column. */
	to: { table: string; column: string } | null;
	/** Words that a check allows. */
	words: string[];
}

/** Tables of the record with their columns, those first that others point to. */
async function tablesOf(sql: postgres.Sql): Promise<{ table: string; columns: Column[] }[]> {
	const columns = await sql<
		{ table: string; name: string; type: string; required: boolean; enums: string[] | null }[]
	>`
		select c.relname as table, a.attname as name, format_type(a.atttypid, a.atttypmod) as type,
			a.attnotnull and not a.atthasdef and a.attidentity = '' as required,
			(select array_agg(e.enumlabel order by e.enumsortorder) from pg_enum e where e.enumtypid = a.atttypid) as enums
		from pg_class c join pg_attribute a on a.attrelid = c.oid
		where c.relkind = 'r' and c.relnamespace = 'public'::regnamespace and a.attnum > 0 and not a.attisdropped
		order by c.relname, a.attnum`;
	const keys = await sql<{ table: string; name: string; to: string; column: string }[]>`
		select c.conrelid::regclass::text as table, a.attname as name, r.relname as to, b.attname as column
		from pg_constraint c join pg_class r on r.oid = c.confrelid
			join pg_attribute a on a.attrelid = c.conrelid and a.attnum = c.conkey[1]
			join pg_attribute b on b.attrelid = c.confrelid and b.attnum = c.confkey[1]
		where c.contype = 'f' and c.connamespace = 'public'::regnamespace`;
	const checks = await sql<{ table: string; text: string }[]>`
		select conrelid::regclass::text as table, pg_get_constraintdef(oid) as text from pg_constraint
		where contype = 'c' and connamespace = 'public'::regnamespace`;
	const allowed = (table: string, column: string) =>
		checks
			.filter((check) => check.table.replaceAll('"', '') === table && check.text.includes(column))
			.flatMap(({ text }) => (text.includes('ANY (ARRAY') || text.includes('= ANY') ? text : []))
			.flatMap((text) => [...text.matchAll(/'([^']*)'::text/g)].map(([, word = '']) => word));
	const tables = [...new Set(columns.map(({ table }) => table))].map((table) => ({
		table,
		columns: columns
			.filter((column) => column.table === table)
			.map(({ name, type, required, enums }): Column => {
				const key = keys.find((k) => k.table.replaceAll('"', '') === table && k.name === name);
				return {
					name,
					type,
					required,
					to: key ? { table: key.to, column: key.column } : null,
					words: enums ?? allowed(table, name)
				};
			})
	}));
	const sorted: typeof tables = [];
	for (let left = tables; left.length;) {
		const ready = left.filter(({ table, columns }) =>
			columns.every(
				({ to, required }) =>
					!to || !required || to.table === table || sorted.some((s) => s.table === to.table)
			)
		);
		sorted.push(...(ready.length ? ready : left));
		left = ready.length ? left.filter((one) => !ready.includes(one)) : [];
	}
	return sorted;
}

/** Values that a column of a type may take, the likelier first; the row makes them differ. */
function valuesFor({ type, words }: Column, row: number): unknown[] {
	if (words.length) return [words[row % words.length], ...words];
	const uuid = `00000000-0000-4000-8000-${String(row).padStart(12, '0')}`;
	const byType: [RegExp, unknown[]][] = [
		[/^uuid/, [uuid]],
		[/^(integer|bigint|smallint)/, [row, 1, 0, 60]],
		[/^(double|real|numeric)/, [row, 0.5, 0, 20, 200]],
		[/^boolean/, [false, true]],
		[/^timestamp/, [`2026-01-0${1 + (row % 8)}T10:00:00Z`]],
		[/^date/, [`2026-01-0${1 + (row % 8)}`]],
		[/^jsonb?/, ['[]', '{}']],
		[/^bytea/, [Buffer.from([1, 2])]],
		[/\[\]$/, ['{}']],
		[/^(text|character)/, [`word ${row}`, `W-${row}`, 'UTC']]
	];
	return byType.find(([pattern]) => pattern.test(type))?.[1] ?? [null];
}

/** The words that columns take, by table and column: also where the database itself asks for them only later. */
export async function wordsOf(sql: postgres.Sql): Promise<Map<string, string[]>> {
	const tables = await tablesOf(sql);
	return new Map(
		tables.flatMap(({ table, columns }) =>
			columns.flatMap(({ name, words }) => (words.length ? [[`${table}.${name}`, words]] : []))
		)
	);
}

/**
 * Puts rows into every table that takes made-up ones, as its columns, keys and checks ask.
 * @param always columns, as table.column, that the application always filled
 * @returns rows by table; tables that take none are not in it
 */
export async function fillTables(
	sql: postgres.Sql,
	words: ReadonlyMap<string, string[]>,
	always: readonly string[] = [],
	rows = 2
): Promise<Map<string, number>> {
	const filled = new Map<string, number>();
	const tables = (await tablesOf(sql)).map(({ table, columns }) => ({
		table,
		columns: columns.map((column) => ({
			...column,
			required: column.required || always.includes(`${table}.${column.name}`),
			words: words.get(`${table}.${column.name}`) ?? column.words
		}))
	}));
	for (const { table, columns } of tables)
		for (let row = 1; row <= rows; row++)
			if (await fillRow(sql, table, columns, row)) filled.set(table, (filled.get(table) ?? 0) + 1);
	return filled;
}

async function fillRow(
	sql: postgres.Sql,
	table: string,
	columns: readonly Column[],
	row: number
): Promise<boolean> {
	const given: { name: string; choices: unknown[] }[] = [];
	for (const column of columns) {
		if (!column.required && !(column.to && column.to.table !== table)) continue;
		if (!column.to) {
			given.push({ name: column.name, choices: valuesFor(column, row) });
			continue;
		}
		const found = await sql.unsafe<{ v: unknown }[]>(
			`select "${column.to.column}" as v from "${column.to.table}" offset ${row - 1} limit 1`
		);
		if (found[0]) given.push({ name: column.name, choices: [found[0].v] });
		else if (column.required) return false;
	}
	const names = given.map(({ name }) => `"${name}"`).join(', ');
	const places = given.map((_, i) => `$${i + 1}`).join(', ');
	// One choice after the other for one column at a time: most checks look at one.
	const most = Math.max(1, ...given.map(({ choices }) => choices.length));
	for (let turn = 0; turn < most * 2; turn++) {
		const values = given.map(
			({ choices }, i) => choices[(turn + (i % 2 ? turn : 0)) % choices.length]
		);
		const text = given.length
			? `insert into "${table}" (${names}) values (${places})`
			: `insert into "${table}" default values`;
		try {
			await sql.unsafe(text, values as never[]);
			return true;
		} catch {
			// The next choice.
		}
	}
	return false;
}
