import { createHmac } from 'node:crypto';
import { isNotNull } from 'drizzle-orm';
import type { Connection } from '../db/client.ts';
import { installation, session, twoFactor, user } from '../db/schema/index.ts';
import type { Unattended } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { writeUnattended } from '../kernel/write.ts';

/** Tells a secret from another, and nothing of it. */
const markOf = (secret: string): string =>
	createHmac('sha256', secret).update('grevan installation').digest('base64url');

async function keptMark(db: Connection): Promise<string | undefined> {
	const [row] = await db.select({ mark: installation.secretMark }).from(installation);
	return row?.mark;
}

/**
 * Ties a database to the secret of its installation, which PINs, authenticators and sessions hold by. Called by the
 * owner at every start.
 * @param renew the secret is gone for good: what held by it is taken away, and its people choose anew
 * @returns what is said of it; undefined for nothing
 * @throws Refusal where the database belongs to another secret and that is not to be given up
 */
export async function tieSecret(
	context: Unattended,
	secret: string,
	renew: boolean
): Promise<string | undefined> {
	const { db, now } = context;
	const mark = markOf(secret);
	const kept = await keptMark(db);
	if (kept === mark) return undefined;
	if (kept === undefined) {
		await db.insert(installation).values({ secretMark: mark, madeAt: now() }).onConflictDoNothing();
		return undefined;
	}
	if (!renew)
		throw new Refusal(
			'conflict',
			'The secret of this installation (GREVAN_SECRET, or app-session.secret) is not the one that this database was used with: no PIN and no authenticator would open anything. Nothing was changed. Put it back from a copy. If it is gone for good, start once with GREVAN_NEW_SECRET=1: everyone signs in by password, and chooses PIN and second step anew.'
		);
	return writeUnattended(context, null, async ({ tx, record }) => {
		const pins = await tx
			.update(user)
			.set({ pinHash: null })
			.where(isNotNull(user.pinHash))
			.returning({ id: user.id });
		const twoStep = await tx.delete(twoFactor).returning({ id: twoFactor.userId });
		await tx.update(user).set({ twoFactorEnabled: false });
		await tx.delete(session);
		await tx.update(installation).set({ secretMark: mark, madeAt: now() });
		record('site.secret-renewed', {
			of: '1',
			payload: { pins: pins.length, twoStep: twoStep.length }
		});
		return `The secret of the installation is another now: ${pins.length} PINs and ${twoStep.length} second steps were taken away, and everyone signs in by password.`;
	});
}
