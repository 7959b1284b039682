import {
	createPrivateKey,
	createPublicKey,
	generateKeyPairSync,
	type KeyObject,
	sign,
	verify
} from 'node:crypto';
import { appendFile, chmod, mkdir, readFile, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { z } from 'zod';
import type { Connection } from '../db/client.ts';
import { auditHead } from '../db/schema/index.ts';
import { sha256 } from './sha256.ts';

/**
 * The end of the log, signed with a key that the database does not hold and kept where the database does not reach:
 * whoever rewrites the database, its owner included, cannot rewrite these.
 */
export interface Anchor {
	seq: number;
	hash: string;
	at: string;
	why: 'interval' | 'certificate';
	/** Fingerprint of the key. */
	key: string;
	/** Hash of the line before; a line that is taken out is missed. */
	before: string;
	signature: string;
}

/** Where the key and the anchors are. */
export interface AnchorPlace {
	key: string;
	file: string;
}

const line = z.object({
	seq: z.number().int().min(0),
	hash: z.string().length(64),
	at: z.iso.datetime(),
	why: z.enum(['interval', 'certificate']),
	key: z.string().max(100),
	before: z.string().max(100),
	signature: z.string().max(200)
});

const signedText = ({ seq, hash, at, why, key, before }: Omit<Anchor, 'signature'>) =>
	Buffer.from(['grevan log', seq, hash, at, why, key, before].join('\n'));
const fingerprint = (key: KeyObject) =>
	sha256(
		(key.type === 'public' ? key : createPublicKey(key))
			.export({ type: 'spki', format: 'der' })
			.toString('hex')
	).slice(0, 16);

/** The key that anchors are signed with, made at first use and readable by its owner only. */
async function signingKey(path: string): Promise<KeyObject> {
	const read = () => readFile(path, 'utf8').then(createPrivateKey);
	try {
		return await read();
	} catch (error) {
		if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
	}
	const { privateKey } = generateKeyPairSync('ed25519');
	await mkdir(dirname(path), { recursive: true });
	try {
		await writeFile(path, privateKey.export({ type: 'pkcs8', format: 'pem' }), {
			mode: 0o600,
			flag: 'wx'
		});
		await chmod(path, 0o600);
	} catch (error) {
		// Another process made it at the same moment.
		if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
	}
	return read();
}

const linesOf = async (file: string): Promise<string[]> => {
	try {
		return (await readFile(file, 'utf8')).split('\n').filter(Boolean);
	} catch (error) {
		if ((error as NodeJS.ErrnoException).code === 'ENOENT') return [];
		throw error;
	}
};

const parsed = (text: string): unknown => {
	try {
		return JSON.parse(text);
	} catch {
		return null;
	}
};

/**
 * Signs the end of the log as it is now and keeps it.
 * @returns the anchor of it, also where it was signed before; null where nothing is in the log
 */
export async function anchorHead(
	db: Connection,
	place: AnchorPlace,
	why: Anchor['why'],
	now: Date
): Promise<Anchor | null> {
	const [head] = await db.select().from(auditHead);
	if (!head || head.seq === 0) return null;
	const last = (await linesOf(place.file)).at(-1);
	const signed = last && line.safeParse(parsed(last));
	if (signed && signed.success && signed.data.seq === head.seq) return signed.data;
	const key = await signingKey(place.key);
	const unsigned = {
		seq: head.seq,
		hash: head.hash,
		at: now.toISOString(),
		why,
		key: fingerprint(key),
		before: last ? sha256(last) : ''
	};
	const anchor = {
		...unsigned,
		signature: sign(null, signedText(unsigned), key).toString('base64')
	};
	await mkdir(dirname(place.file), { recursive: true });
	await appendFile(place.file, `${JSON.stringify(anchor)}\n`, { mode: 0o600 });
	return anchor;
}

/** Anchors as they were kept, and what is wrong with the keeping. */
export interface AnchorsRead {
	anchors: Anchor[];
	faults: { line: number; text: string }[];
}

/** Reads the anchors and checks each against the key. */
export async function readAnchors(place: AnchorPlace): Promise<AnchorsRead> {
	const lines = await linesOf(place.file);
	const found: AnchorsRead = { anchors: [], faults: [] };
	if (lines.length === 0) return found;
	const key = createPublicKey(await signingKey(place.key));
	const own = fingerprint(key);
	let before = new Set(['']);
	lines.forEach((text, i) => {
		const fault = (what: string) => found.faults.push({ line: i + 1, text: what });
		const read = line.safeParse(parsed(text));
		if (!read.success) fault('it is no anchor');
		else if (read.data.key !== own) fault('it was signed with another key');
		else if (!verify(null, signedText(read.data), key, Buffer.from(read.data.signature, 'base64')))
			fault('its signature is not of this key');
		else {
			if (!before.has(read.data.before)) fault('a line before it was taken out or changed');
			found.anchors.push(read.data);
		}
		// Two processes may have signed side by side, each after the same line.
		before = new Set([sha256(text), ...[...before].slice(0, 1)]);
	});
	return found;
}
