import { z } from 'zod';

/** The newest way to write an archive; a file of a newer one is refused. */
export const ARCHIVE_VERSION = 1;

const sha256 = z.string().regex(/^[0-9a-f]{64}$/);
const count = z.number().int().nonnegative();

/** What an archive says of itself. */
export const archiveManifest = z.object({
	format: z.literal('grevan-archive'),
	version: z.number().int().positive(),
	/** When it was written; all of it is of one moment. */
	at: z.iso.datetime(),
	site: z.string(),
	/** Schema: how many migrations its database had. */
	migrations: count,
	/** End of the log: the hash that every entry before it leads to. */
	log: z.object({ seq: count, hash: z.string() }),
	/** One file of JSON lines for each table. */
	tables: z.record(
		z.string(),
		z.object({
			file: z.string(),
			rows: count,
			sha256,
			/** Type of each column, as PostgreSQL names it. */
			columns: z.record(z.string(), z.string())
		})
	),
	/** Pictures and other bytes: SHA-256 by their path. A column that holds such names the path. */
	attachments: z.record(z.string(), sha256)
});
export type ArchiveManifest = z.infer<typeof archiveManifest>;

/**
 * Tables that are of one installation and not of the record: how people come in, what runs by, and what is ticking.
 * Whoever reads an archive into a site gives passwords anew.
 */
export const LEFT_OUT = [
	'account',
	'api_key',
	'audit_pending',
	'bench_chunk',
	'device',
	'entry_count',
	'import_progress',
	'installation',
	'invite',
	'lease',
	'plan_feed',
	'rate_limit',
	'second_screen',
	'session',
	'sign_in_failure',
	'stock_count',
	'steady_clock',
	'two_factor',
	'verification',
	'write_request'
];

/** Columns of a kept table that only let somebody in. */
export const BLANKED: Readonly<Record<string, readonly string[]>> = {
	user: ['pin_hash', 'two_factor_enabled']
};
