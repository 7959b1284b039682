import { and, eq, isNull } from 'drizzle-orm';
import type { InvitePurpose } from '../../../core/access/session.ts';
import type { Connection } from '../db/client.ts';
import { invite, user } from '../db/schema/index.ts';
import type { Context, Unattended } from '../kernel/context.ts';
import { requirePassword } from '../kernel/proof.ts';
import { Refusal } from '../kernel/refusal.ts';
import { sha256 } from '../kernel/sha256.ts';
import { type Work, write, writeUnattended } from '../kernel/write.ts';
import { type Auth, hashPassword } from '../web/auth.ts';
import { passwordHashOf, setPassword } from './accounts.ts';
import { attemptKey, forgiveTries } from './attempts.ts';
import { drawSecret } from './draw-secret.ts';
import { requireGoodPassword } from './passwords.ts';
import { endSessionsOf } from './sessions.ts';

const HOUR_MS = 3_600_000;
/** A link for the first sign-in, or for a new password, opens so long. Site default. */
const LINK_HOURS = 72;

/** Draws a token and keeps its hash; links made before for the same account open nothing any more. */
export async function keepLink(
	{ tx, now, record }: Work,
	userId: string,
	purpose: InvitePurpose,
	token: string
): Promise<void> {
	await tx.delete(invite).where(and(eq(invite.userId, userId), isNull(invite.usedAt)));
	await tx.insert(invite).values({
		hash: sha256(token),
		userId,
		purpose,
		expiresAt: new Date(now.getTime() + LINK_HOURS * HOUR_MS)
	});
	record('account.link-made', { of: userId, payload: { purpose } });
}

/** A second send finds the first, whose link nobody can show again. */
export function requireOwn(kept: string, token: string): void {
	if (kept !== sha256(token))
		throw new Refusal('conflict', 'This was done before, and its link shown. Make another link.');
}

/** Makes a link by which a person chooses a new password; what they had goes on until they do. */
export async function makeLink(
	context: Context,
	requestId: string,
	userId: string
): Promise<string> {
	requirePassword(context, 'make a link');
	const token = drawSecret();
	const kept = await write(
		context,
		'keep accounts',
		{ id: requestId, content: ['link', userId] },
		async (at) => {
			await requireAccount(at.tx, userId);
			const first = (await passwordHashOf(at.tx, userId)) === undefined;
			await keepLink(at, userId, first ? 'invite' : 'reset', token);
			return sha256(token);
		}
	);
	requireOwn(kept, token);
	return token;
}

/** @throws Refusal where there is no such account */
async function requireAccount(tx: Connection, userId: string): Promise<void> {
	const [found] = await tx.select({ id: user.id }).from(user).where(eq(user.id, userId));
	if (!found) throw new Refusal('not found', 'There is no such account.');
}

/** Whose link it is. @throws Refusal where it was used, has lapsed or never was */
export async function linkOf({ db, now }: Pick<Unattended, 'db' | 'now'>, token: string) {
	const [row] = await db
		.select({
			purpose: invite.purpose,
			userId: user.id,
			name: user.name,
			email: user.email,
			initials: user.initials,
			expiresAt: invite.expiresAt,
			usedAt: invite.usedAt,
			disabledAt: user.disabledAt
		})
		.from(invite)
		.innerJoin(user, eq(user.id, invite.userId))
		.where(eq(invite.hash, sha256(token)));
	if (!row || row.usedAt || row.disabledAt || row.expiresAt <= now())
		throw new Refusal(
			'not found',
			'This link opens nothing any more. Ask the one who keeps the accounts for another.'
		);
	return row;
}

/**
 * Chooses a password through a link, which opens nothing after that; every session of the account ends.
 * @throws Refusal
 */
export async function choosePasswordByLink(
	auth: Auth,
	context: Unattended,
	token: string,
	password: string
): Promise<void> {
	const person = await linkOf(context, token);
	await requireGoodPassword(password, person);
	const hash = await hashPassword(auth, password);
	await writeUnattended(context, null, async ({ tx, now, record }) => {
		const { rowCount } = await tx
			.update(invite)
			.set({ usedAt: now })
			.where(and(eq(invite.hash, sha256(token)), isNull(invite.usedAt)));
		if (!rowCount) throw new Refusal('not found', 'This link was used already.');
		await setPassword(tx, person.userId, hash);
		await endSessionsOf(tx, person.userId);
		await forgiveTries(tx, attemptKey('password', person.email));
		record('account.password-chosen', { of: person.userId, payload: { by: 'link' } });
	});
}
