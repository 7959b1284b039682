import { eq } from 'drizzle-orm';
import { device, session } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { requirePassword } from '../kernel/proof.ts';
import { type Requested, write } from '../kernel/write.ts';
import { type Auth, hashPassword } from '../web/auth.ts';
import { accountOf } from './account-changes.ts';
import { setPassword } from './accounts.ts';
import { requireOwnPassword } from './own-password.ts';
import { requireGoodPassword } from './passwords.ts';
import { endSessionsOf } from './sessions.ts';

/**
 * Changes one's own password; every other session ends.
 * @throws Refusal where the one before is wrong or the new one is not good
 */
export async function changePassword(
	auth: Auth,
	context: Context,
	requestId: string,
	given: { before: string; password: string; sessionId: string }
): Promise<void> {
	const { actor, db } = context;
	await requireOwnPassword(auth, context, given.before, {
		message: 'This is not your password.',
		path: 'before'
	});
	await requireGoodPassword(given.password, await accountOf(db, actor.id));
	const hash = await hashPassword(auth, given.password);
	// Passwords are no part of what is kept of the request.
	const request: Requested = { id: requestId, content: ['password', actor.id] };
	await write(context, 'view', request, async ({ tx, record }) => {
		await setPassword(tx, actor.id, hash);
		await endSessionsOf(tx, actor.id, given.sessionId);
		record('account.password-chosen', { of: actor.id, payload: { by: 'self' } });
	});
}

/** Says whether a device is a bench that several share. */
export async function shareDevice(
	context: Context,
	request: Requested,
	given: { deviceId: string; sessionId: string; shared: boolean; name: string }
): Promise<void> {
	requirePassword(context, 'say whose device this is');
	await write(context, 'view', request, async ({ tx, actor, record }) => {
		const { shared, name } = given;
		await tx.update(device).set({ shared, name }).where(eq(device.id, given.deviceId));
		await tx.update(session).set({ shared }).where(eq(session.id, given.sessionId));
		record('device.shared', { of: actor.id, payload: { shared, name } });
	});
}
