import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Auth, passwordHolds } from '../web/auth.ts';
import { passwordHashOf } from './accounts.ts';
import { attemptKey, forgiveTries, noteRefused, takeTry } from './attempts.ts';

/**
 * Whoever is signed in shows their password again, with tries counted like any other.
 * @param wrong what is said where it is another, at which field
 * @throws Refusal where it is wrong, or one has to wait
 */
export async function requireOwnPassword(
	auth: Auth,
	context: Context,
	password: string,
	wrong: { message: string; path: string }
): Promise<void> {
	const { actor, db } = context;
	const key = attemptKey('password', `proof ${actor.id}`);
	const tries = await takeTry(context, { key, way: 'password', userId: actor.id });
	const kept = await passwordHashOf(db, actor.id);
	if (!kept || !(await passwordHolds(auth, kept, password))) {
		await noteRefused(context, actor.id, 'password', 'wrong', tries);
		throw new Refusal('forbidden', wrong.message, wrong.path);
	}
	await forgiveTries(db, key);
}
