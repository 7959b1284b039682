import { desc, eq } from 'drizzle-orm';
import { session, twoFactor, user } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { requirePassword } from '../kernel/proof.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write, writeUnattended } from '../kernel/write.ts';
import type { Role } from '../kernel/permissions.ts';
import type { Site } from '../kernel/site.ts';
import { askAuth } from '../web/auth.ts';
import { attemptKey, forgiveTries, takeTry } from './attempts.ts';
import { requireOwnPassword } from './own-password.ts';
import { endSessionsOf } from './sessions.ts';
import type { Entrance } from './sign-in.ts';

/** What the account service needs to know whose session asks. */
export type Asking = Pick<Entrance, 'auth' | 'origin' | 'client'> & { cookie: string | null };

/** Whether the site asks a role for a second step that an account has not. */
export const owesTwoStep = (
	{ twoStepRoles }: Pick<Site, 'twoStepRoles'>,
	{ role, twoStep }: { role: Role; twoStep: boolean }
): boolean => twoStepRoles.includes(role) && !twoStep;

/**
 * Begins to set up two-step sign-in: a secret for the authenticator, and codes for when it is lost, shown once.
 * @throws Refusal where the password is wrong
 */
export async function beginTwoStep(
	context: Context,
	{ auth, origin, client, cookie }: Asking,
	password: string
): Promise<{ uri: string; codes: string[] }> {
	await requireOwnPassword(auth, context, password, {
		message: 'This is not your password.',
		path: 'secret'
	});
	const { status, body } = await askAuth(auth, origin, '/two-factor/enable', {
		body: { password, method: 'totp' },
		client,
		cookie
	});
	if (status >= 400)
		throw new Refusal('conflict', 'Two-step sign-in could not be set up. Load the page again.');
	return { uri: String(body.totpURI), codes: body.backupCodes as string[] };
}

/**
 * Ends the set-up with the code that the authenticator shows: from now on it is asked for. The session is made anew.
 * @returns the cookies of the new session
 */
export async function confirmTwoStep(
	context: Context,
	{ auth, origin, client, cookie }: Asking,
	given: { code: string; sessionId: string }
): Promise<string[]> {
	const { actor } = context;
	const key = attemptKey('code', actor.id);
	await takeTry(context, { key, way: 'code', userId: actor.id });
	const [before] = await context.db.select().from(session).where(eq(session.id, given.sessionId));
	const { status, cookies } = await askAuth(auth, origin, '/two-factor/verify-totp', {
		body: { code: given.code.replace(/\s/g, '') },
		client,
		cookie
	});
	if (status >= 400)
		throw new Refusal('forbidden', 'This is not the code shown now. Wait for the next.', 'code');
	await writeUnattended(context, actor, async ({ tx, record }) => {
		await forgiveTries(tx, key);
		const [made] = await tx
			.select({ id: session.id })
			.from(session)
			.where(eq(session.userId, actor.id))
			.orderBy(desc(session.createdAt))
			.limit(1);
		if (!made) throw new Error('The session that was made anew is not there.');
		// The account service opened a session in the place of the one that asked: it stays on its device, and every
		// other of the account ends.
		await endSessionsOf(tx, actor.id, made.id);
		await tx
			.update(session)
			.set({ deviceId: before?.deviceId ?? null, shared: before?.shared ?? false })
			.where(eq(session.id, made.id));
		record('account.two-step', { of: actor.id, payload: { on: true } });
	});
	return cookies;
}

/** Ends two-step sign-in of one's own account. @throws Refusal where a role needs it */
export async function endTwoStep(context: Context, requestId: string): Promise<void> {
	const { actor, site } = context;
	requirePassword(context, 'turn two-step sign-in off');
	if (site.twoStepRoles.includes(actor.role))
		throw new Refusal('forbidden', `This site asks every ${actor.role} for two steps.`);
	const request = { id: requestId, content: ['two-step off', actor.id] };
	await write(context, 'view', request, (at) => dropTwoStep(at, actor.id));
}

/** Takes the second step from an account. */
export async function dropTwoStep({ tx, record }: Work, userId: string): Promise<void> {
	await tx.delete(twoFactor).where(eq(twoFactor.userId, userId));
	await tx.update(user).set({ twoFactorEnabled: false }).where(eq(user.id, userId));
	record('account.two-step', { of: userId, payload: { on: false } });
}
