import { randomBytes } from 'node:crypto';
import { and, asc, count, eq, isNull, max } from 'drizzle-orm';
import type { Connection } from '../db/client.ts';
import { account, session, user } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import type { Role } from '../kernel/permissions.ts';
import { requirePassword } from '../kernel/proof.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import { sha256 } from '../kernel/sha256.ts';
import { type Requested, type Work, write } from '../kernel/write.ts';
import { type NewAccount, tidyAddress } from './accounts.ts';
import { drawSecret } from './draw-secret.ts';
import { keepLink, requireOwn } from './links.ts';
import { endSessionsOf } from './sessions.ts';
import { dropTwoStep } from './two-step.ts';

const ACCOUNT = {
	id: user.id,
	name: user.name,
	initials: user.initials,
	email: user.email,
	role: user.role,
	disabledAt: user.disabledAt,
	twoStep: user.twoFactorEnabled
};

/** Every account, with when it was last in and how many sessions stand. */
export async function accountList(db: Connection) {
	const sessions = db
		.select({
			userId: session.userId,
			open: count().as('open'),
			seenAt: max(session.seenAt).as('last_seen')
		})
		.from(session)
		.groupBy(session.userId)
		.as('sessions');
	return db
		.select({
			...ACCOUNT,
			hasPassword: account.id,
			open: sessions.open,
			seenAt: sessions.seenAt
		})
		.from(user)
		.leftJoin(sessions, eq(sessions.userId, user.id))
		.leftJoin(account, eq(account.userId, user.id))
		.orderBy(asc(user.name));
}

/** An account. @throws Refusal where there is none */
export async function accountOf(db: Connection, id: string) {
	const [row] = await db
		.select({ ...ACCOUNT, card: user.card, pinHash: user.pinHash })
		.from(user)
		.where(eq(user.id, id));
	if (!row) throw new Refusal('not found', 'There is no such account.');
	const { pinHash, ...rest } = row;
	return { ...rest, hasPin: pinHash !== null };
}

/**
 * Makes an account without a password, and the link by which its person chooses one.
 * @returns its id and the token of the link, which is shown once
 * @throws Refusal where somebody has the address
 */
export async function makeAccount(
	context: Context,
	requestId: string,
	given: NewAccount
): Promise<{ userId: string; token: string }> {
	requirePassword(context, 'make an account');
	const token = drawSecret();
	const email = tidyAddress(given.email);
	const id = randomBytes(12).toString('hex');
	const request = { id: requestId, content: ['account', given] };
	const kept = await withOwnAddress(
		write(context, 'keep accounts', request, async (at) => {
			await at.tx.insert(user).values({ ...given, id, email, emailVerified: true });
			at.record('account.made', { of: id, payload: { role: given.role } });
			await keepLink(at, id, 'invite', token);
			return { userId: id, hash: sha256(token) };
		})
	);
	requireOwn(kept.hash, token);
	return { userId: kept.userId, token };
}

/** What is done to an account of somebody. */
type AccountChange =
	| { kind: 'role'; role: Role }
	| { kind: 'close'; why: string }
	| { kind: 'open' }
	| { kind: 'end sessions' }
	| { kind: 'no second step' };

/** Changes an account of somebody, or closes or opens it; its sessions end. */
export async function changeAccount(
	context: Context,
	request: Requested,
	userId: string,
	change: AccountChange
): Promise<void> {
	requirePassword(context, 'change an account');
	await write(context, 'keep accounts', request, async (at) => {
		const before = await accountOf(at.tx, userId);
		const giveUp = change.kind === 'close' || (change.kind === 'role' && change.role !== 'admin');
		if (giveUp && before.role === 'admin') await requireOtherAdmin(at.tx, userId);
		await apply(at, before, change);
		const { rowCount } = await endSessionsOf(at.tx, userId);
		if (rowCount)
			at.record('session.ended', {
				of: userId,
				payload: { why: 'account changed', count: rowCount }
			});
	});
}

async function apply(
	at: Work,
	{ id: of, role: from }: { id: string; role: Role },
	change: AccountChange
): Promise<void> {
	const set = (values: Partial<typeof user.$inferInsert>) =>
		at.tx.update(user).set(values).where(eq(user.id, of));
	switch (change.kind) {
		case 'role':
			await set({ role: change.role });
			return at.record('account.role-changed', { of, payload: { from, to: change.role } });
		case 'close':
			await set({ disabledAt: at.now });
			return at.record('account.disabled', { of, payload: { why: change.why } });
		case 'open':
			await set({ disabledAt: null });
			return at.record('account.enabled', { of, payload: {} });
		case 'no second step':
			return dropTwoStep(at, of);
		case 'end sessions':
	}
}

/** A site without anyone who keeps the accounts could not be helped. @throws Refusal */
async function requireOtherAdmin(tx: Connection, userId: string): Promise<void> {
	const admins = await tx
		.select({ id: user.id })
		.from(user)
		.where(and(eq(user.role, 'admin'), isNull(user.disabledAt)))
		.for('update');
	if (!admins.some(({ id }) => id !== userId))
		throw new Refusal('conflict', 'This is the last admin. Make another one first.');
}

/** Changes the name, initials or address of an account; sessions go on. */
export async function renameAccount(
	context: Context,
	request: Requested,
	userId: string,
	given: { name: string; initials: string; email: string }
): Promise<void> {
	requirePassword(context, 'change an account');
	await withOwnAddress(
		write(context, 'keep accounts', request, async ({ tx, record }) => {
			const { rowCount } = await tx
				.update(user)
				.set({ ...given, email: tidyAddress(given.email) })
				.where(eq(user.id, userId));
			if (!rowCount) throw new Refusal('not found', 'There is no such account.');
			record('account.renamed', { of: userId, payload: {} });
		})
	);
}

/** What is written of an account. @throws Refusal where somebody else has the address */
async function withOwnAddress<T>(written: Promise<T>): Promise<T> {
	try {
		return await written;
	} catch (cause) {
		if (brokenConstraint(cause) === 'user_email_unique')
			throw new Refusal('conflict', 'Somebody has an account with this address.', 'email');
		throw cause;
	}
}
