import { and, desc, eq, isNull } from 'drizzle-orm';
import { keyReaches, type KeyScope } from '../../../core/access/keys.ts';
import type { Connection } from '../db/client.ts';
import { useKey } from '../db/queries/access.ts';
import { apiKey, user } from '../db/schema/index.ts';
import type { Actor, Context, Unattended } from '../kernel/context.ts';
import { requirePassword } from '../kernel/proof.ts';
import { Refusal } from '../kernel/refusal.ts';
import { sha256 } from '../kernel/sha256.ts';
import { type Requested, type Work, write, writeUnattended } from '../kernel/write.ts';
import { drawSecret } from './draw-secret.ts';

/** Characters of a key that are kept to tell it by. */
const START = 8;
const DAY_MS = 86_400_000;

export interface NewKey {
	name: string;
	scope: KeyScope;
	/** Days that it holds; null for as long as it is not revoked. */
	days: number | null;
}

const drawKey = () => `grv_${drawSecret()}`;

/** Keeps the hash of a key. @returns what is recorded of it */
async function keepKey(
	{ tx, now }: Work,
	userId: string,
	key: string,
	{ name, scope, days }: NewKey
) {
	const expiresAt = days === null ? null : new Date(now.getTime() + days * DAY_MS);
	await tx
		.insert(apiKey)
		.values({ hash: sha256(key), name, scope, userId, start: key.slice(0, START), expiresAt });
	return { of: userId, payload: { name, scope, until: expiresAt?.toISOString() ?? null } };
}

/** Makes a key from the command line; it is shown once and kept only as a hash. */
export async function makeKeyFor(
	context: Unattended,
	userId: string,
	given: NewKey
): Promise<string> {
	const key = drawKey();
	await writeUnattended(context, null, async (at) =>
		at.record('account.key-made', await keepKey(at, userId, key, given))
	);
	return key;
}

/** Makes a key of one's own; it is shown once. @throws Refusal without one's password, or where it was shown before */
export async function makeKey(context: Context, requestId: string, given: NewKey): Promise<string> {
	requirePassword(context, 'make a key');
	const key = drawKey();
	const request = { id: requestId, content: ['key', given] };
	const kept = await write(context, 'view', request, async (at) => {
		at.record('account.key-made', await keepKey(at, at.actor.id, key, given));
		return sha256(key);
	});
	// A second send finds the first, whose key nobody can show again.
	if (kept !== sha256(key))
		throw new Refusal(
			'conflict',
			'This key was made and shown before. Revoke it, then make another.'
		);
	return key;
}

/** Revokes a key: one's own, or anybody's for whoever keeps the accounts. */
export async function revokeKey(context: Context, request: Requested, id: string): Promise<void> {
	await write(context, 'view', request, async ({ tx, now, actor, record }) => {
		const [found] = await tx.select().from(apiKey).where(eq(apiKey.id, id)).for('update');
		if (!found || (found.userId !== actor.id && actor.role !== 'admin'))
			throw new Refusal('not found', 'There is no such key of yours.');
		if (found.revokedAt) return;
		await tx.update(apiKey).set({ revokedAt: now }).where(eq(apiKey.id, id));
		record('account.key-revoked', { of: found.userId, payload: { name: found.name } });
	});
}

/** Keys that are not revoked: of one person, or all of them with whose they are. */
export const keysOf = (db: Connection, userId: string | null) =>
	db
		.select({
			id: apiKey.id,
			name: apiKey.name,
			start: apiKey.start,
			scope: apiKey.scope,
			createdAt: apiKey.createdAt,
			expiresAt: apiKey.expiresAt,
			lastUsedAt: apiKey.lastUsedAt,
			whose: user.name
		})
		.from(apiKey)
		.innerJoin(user, eq(user.id, apiKey.userId))
		.where(and(isNull(apiKey.revokedAt), userId === null ? undefined : eq(apiKey.userId, userId)))
		.orderBy(desc(apiKey.createdAt));

const CALC = /^\/api\/v1\/(?:calc\/|openapi\.json$)/;
/** What a program may read beside the interface: tables and traces in open formats. */
const READS = /^\/api\/|\/export$|\/trace\.csv$|\/card\.pdf$/;

/** How far a key must reach for a request; undefined where no key opens it. */
function scopeFor(method: string, pathname: string): KeyScope | undefined {
	if (CALC.test(pathname)) return 'calc';
	if (!READS.test(pathname)) return undefined;
	if (method === 'GET' || method === 'HEAD') return 'read';
	return pathname.startsWith('/api/') ? 'write' : undefined;
}

/** The person whose key a program came with; null without one, or where it does not reach so far. */
export async function keyActor(
	{ db, now }: Pick<Unattended, 'db' | 'now'>,
	request: Request,
	pathname: string
): Promise<Actor | null> {
	const given =
		request.headers.get('x-api-key') ??
		/^Bearer (\S+)$/i.exec(request.headers.get('authorization') ?? '')?.[1];
	const asked = scopeFor(request.method, pathname);
	if (!given || !asked) return null;
	const found = await useKey(db, sha256(given), now());
	if (!found || !keyReaches(found.scope, asked)) return null;
	const { id, name, initials, role } = found;
	return { id, name, initials, role };
}
