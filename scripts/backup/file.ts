import { createCipheriv, createDecipheriv, createHash, randomBytes, scryptSync } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync } from 'node:fs';
import { open, stat } from 'node:fs/promises';
import { PassThrough, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { promisify } from 'node:util';
import yauzl from 'yauzl';
import yazl from 'yazl';
import { z } from 'zod';
import { Stop } from '../lib/say.mjs';

/** What a backup says of itself: enough to prove what comes out of it. */
export const manifestSchema = z.object({
	format: z.literal('grevan-backup'),
	version: z.number().int().positive(),
	at: z.iso.datetime(),
	site: z.string(),
	/** How many migrations its database had; a program with fewer cannot read it. */
	migrations: z.number().int().nonnegative(),
	/** Rows of each table at one moment. */
	tables: z.record(z.string(), z.number().int().nonnegative()),
	/** End of the log at the same moment. */
	log: z.object({ seq: z.number().int().nonnegative(), hash: z.string() }),
	/** SHA-256 of each file in it. */
	files: z.record(z.string(), z.string().length(64))
});
export type Manifest = z.infer<typeof manifestSchema>;

/** The newest way to write one; a file of a newer one is refused. */
export const BACKUP_VERSION = 1;

const MAGIC = Buffer.from('GREVAN-ENCRYPTED-1\n');
const [SALT, IV, TAG] = [16, 12, 16];
/** Published: scrypt, RFC 7914; parameters from memory. */
const keyFrom = (passphrase: string, salt: Buffer) =>
	scryptSync(passphrase, salt, 32, { N: 2 ** 15, r: 8, p: 1, maxmem: 2 ** 26 });

/** SHA-256 of a file, hexadecimal. */
export async function sha256File(file: string): Promise<string> {
	const hash = createHash('sha256');
	await pipeline(createReadStream(file), hash);
	return hash.digest('hex');
}

/**
 * Writes files into one: a ZIP, or with a passphrase the same encrypted with AES-256-GCM.
 * @param parts what it holds, by its name: a file on disk or text
 * @param options compress: files too, where they are not compressed already
 */
export async function packFile(
	to: string,
	parts: Readonly<Record<string, { file: string } | { text: string }>>,
	{ passphrase, compress = false }: { passphrase?: string | undefined; compress?: boolean } = {}
): Promise<void> {
	const zip = new yazl.ZipFile();
	for (const [name, part] of Object.entries(parts))
		if ('file' in part) zip.addFile(part.file, name, { compress });
		else zip.addBuffer(Buffer.from(part.text), name);
	zip.end();
	const from = zip.outputStream as Readable;
	if (!passphrase) {
		await pipeline(from, createWriteStream(to, { mode: 0o600 }));
	} else {
		const [salt, iv] = [randomBytes(SALT), randomBytes(IV)];
		const cipher = createCipheriv('aes-256-gcm', keyFrom(passphrase, salt), iv);
		const out = createWriteStream(to, { mode: 0o600 });
		out.write(Buffer.concat([MAGIC, salt, iv]));
		await pipeline(from, cipher, out, { end: false });
		await new Promise<void>((resolve, reject) => {
			out.once('error', reject);
			out.end(cipher.getAuthTag(), resolve);
		});
	}
	const handle = await open(to, 'r+');
	await handle.sync();
	await handle.close();
}

/** Whether a file was encrypted with a passphrase. */
export async function isEncrypted(file: string): Promise<boolean> {
	const handle = await open(file);
	try {
		const head = Buffer.alloc(MAGIC.length);
		await handle.read(head, 0, head.length, 0);
		return head.equals(MAGIC);
	} finally {
		await handle.close();
	}
}

/**
 * The ZIP inside a file, in plain beside it where it was encrypted.
 * @throws Stop where the passphrase is missing or wrong, or a byte was changed
 */
export async function plainOf(file: string, aside: string, passphrase?: string): Promise<string> {
	if (!(await isEncrypted(file))) return file;
	if (!passphrase)
		throw new Stop(`${file} is encrypted: set GREVAN_BACKUP_PASSPHRASE to its passphrase.`);
	const { size } = await stat(file);
	const from = MAGIC.length + SALT + IV;
	if (size <= from + TAG) throw new Stop(`${file} is cut short.`);
	const handle = await open(file);
	const [head, tag] = [Buffer.alloc(SALT + IV), Buffer.alloc(TAG)];
	await handle.read(head, 0, head.length, MAGIC.length);
	await handle.read(tag, 0, TAG, size - TAG);
	await handle.close();
	const decipher = createDecipheriv(
		'aes-256-gcm',
		keyFrom(passphrase, head.subarray(0, SALT)),
		head.subarray(SALT)
	);
	decipher.setAuthTag(tag);
	try {
		await pipeline(
			createReadStream(file, { start: from, end: size - TAG - 1 }),
			decipher,
			createWriteStream(aside, { mode: 0o600 })
		);
	} catch {
		throw new Stop(`${file} does not open: another passphrase, or the file was changed.`);
	}
	return aside;
}

const openZip = promisify<string, yauzl.Options, yauzl.ZipFile>(yauzl.open);

/**
 * Reads the parts of a ZIP one after the other.
 * @param take gives where a part is written, or nothing to leave it out
 * @returns text of those that were not written
 */
export async function unpackFile(
	file: string,
	take: (name: string) => { to: string } | 'text' | undefined
): Promise<Map<string, string>> {
	const texts = new Map<string, string>();
	let zip: yauzl.ZipFile;
	try {
		zip = await openZip(file, { lazyEntries: true });
	} catch {
		throw new Stop(`${file} is no backup of Grevan, or is cut short.`);
	}
	const read = promisify(zip.openReadStream.bind(zip)) as (entry: yauzl.Entry) => Promise<Readable>;
	await new Promise<void>((resolve, reject) => {
		zip.once('error', reject);
		zip.once('end', resolve);
		zip.on('entry', (entry: yauzl.Entry) => {
			const how = take(entry.fileName);
			const done = async () => {
				if (!how) return;
				const from = await read(entry);
				if (how !== 'text') return pipeline(from, createWriteStream(how.to, { mode: 0o600 }));
				const parts: Buffer[] = [];
				const through = from.pipe(new PassThrough());
				for await (const part of through) parts.push(part as Buffer);
				texts.set(entry.fileName, Buffer.concat(parts).toString('utf8'));
			};
			done().then(() => zip.readEntry(), reject);
		});
		zip.readEntry();
	}).catch((error: unknown) => {
		throw error instanceof Stop
			? error
			: new Stop(`${file} is damaged: ${error instanceof Error ? error.message : String(error)}.`);
	});
	return texts;
}

/**
 * Reads what a file says of itself.
 * @throws Stop where it says nothing readable, or was written by a newer program
 */
export function readManifest<T>(
	file: string,
	text: string | undefined,
	{ kind, newest, schema }: { kind: 'backup' | 'archive'; newest: number; schema: z.ZodType<T> }
): T {
	if (!text) throw new Stop(`${file} is no ${kind} of Grevan: it holds no manifest.`);
	let raw: unknown;
	try {
		raw = JSON.parse(text);
	} catch {
		throw new Stop(`${file} is damaged: its manifest is no JSON.`);
	}
	const version = (raw as { version?: unknown } | null)?.version;
	if (typeof version === 'number' && version > newest)
		throw new Stop(
			`${file} was made by a newer Grevan (version ${version} of the format; this one reads up to ${newest}).`
		);
	const read = schema.safeParse(raw);
	if (!read.success)
		throw new Stop(
			`${file} is damaged: its manifest says nothing readable at ${read.error.issues[0]?.path.join('.') ?? ''}.`
		);
	return read.data;
}

/** Compares parts of a file with their hashes. @throws Stop naming the one that is missing or was changed */
export async function requireHashes(
	file: string,
	hashes: Iterable<readonly [name: string, sha256: string]>,
	placeOf: (name: string) => string | undefined
): Promise<void> {
	for (const [name, sha256] of hashes) {
		const place = placeOf(name);
		if (!place || !existsSync(place))
			throw new Stop(`${file} is damaged: ${name} is missing in it.`);
		const found = await sha256File(place);
		if (found !== sha256)
			throw new Stop(
				`${file} was changed: ${name} has SHA-256 ${found}, its manifest says ${sha256}.`
			);
	}
}
