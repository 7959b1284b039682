import { randomInt } from 'node:crypto';
import { and, eq, isNull } from 'drizzle-orm';
import type { Connection } from '../db/client.ts';
import { installation, site, user } from '../db/schema/index.ts';
import { requireGoodPassword } from '../access/passwords.ts';
import { writeAccount } from '../access/accounts.ts';
import { limitAddress } from '../access/attempts.ts';
import type { Context, Unattended } from '../kernel/context.ts';
import type { Role } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import { sha256 } from '../kernel/sha256.ts';
import { UNNAMED } from '../kernel/site.ts';
import { write, writeUnattended } from '../kernel/write.ts';
import { type Auth, hashPassword } from '../web/auth.ts';
import { missingHere } from './so-far.ts';

/** Letters and digits that nobody takes for another. */
const ALPHABET = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';
const CODE_LENGTH = 12;
/** Codes that one address may try in a minute. Site default. */
const TRIES = 10;

const tidyCode = (text: string) => text.toUpperCase().replaceAll(/[^A-Z0-9]/g, '');

/** Whether somebody keeps the accounts already. */
export async function hasAdmin(db: Connection): Promise<boolean> {
	const [row] = await db
		.select({ id: user.id })
		.from(user)
		.where(and(eq(user.role, 'admin'), isNull(user.disabledAt)))
		.limit(1);
	return row !== undefined;
}

/**
 * Draws the code that opens the set-up of a database that has no admin yet; one that was drawn before opens nothing
 * any more. Called by the owner at every start, after the database is tied to its secret.
 * @returns the code as it is printed; null where the site has an admin
 */
export async function drawSetUpCode(db: Connection): Promise<string | null> {
	if (await hasAdmin(db)) {
		await db.update(installation).set({ setUpHash: null });
		return null;
	}
	const code = Array.from({ length: CODE_LENGTH }, () => ALPHABET[randomInt(ALPHABET.length)]).join(
		''
	);
	await db.update(installation).set({ setUpHash: sha256(code) });
	return code.replaceAll(/(.{4})(?=.)/g, '$1-');
}

export interface FirstAdmin {
	code: string;
	name: string;
	initials: string;
	email: string;
	password: string;
}

/**
 * Makes the first account, which keeps all others, for whoever holds the code. The code opens once.
 * @param client address that it is asked from
 * @throws Refusal where the code is wrong or used, and where an admin is there already
 */
export async function makeFirstAdmin(
	auth: Auth,
	context: Unattended,
	client: string,
	given: FirstAdmin
): Promise<void> {
	await limitAddress(context, 'set-up', client, TRIES);
	await requireGoodPassword(given.password, given);
	const password = await hashPassword(auth, given.password);
	await writeUnattended(context, null, async (at) => {
		const { tx } = at;
		// Two who send the code at once: the second waits here, and finds it used.
		const [kept] = await tx
			.select({ hash: installation.setUpHash })
			.from(installation)
			.for('update');
		if (!kept?.hash || (await hasAdmin(tx)))
			throw new Refusal(
				'conflict',
				'The set-up was begun already, and its code opens nothing any more. Sign in with the account that was made.',
				'code'
			);
		if (kept.hash !== sha256(tidyCode(given.code)))
			throw new Refusal(
				'forbidden',
				'This is not the code that the start of Grevan printed last.',
				'code'
			);
		const { userId } = await writeAccount(tx, { ...given, role: 'admin' }, password);
		await tx.update(installation).set({ setUpHash: null });
		await tx
			.insert(site)
			.values({ name: UNNAMED.name, timeZone: UNNAMED.timeZone })
			.onConflictDoNothing();
		at.record('account.made', { of: userId, payload: { role: 'admin' } });
		at.record('site.begun', { of: '1', payload: { by: given.name } });
	});
}

/**
 * Ends the first set-up: the site opens on Today from now on, which says what is still missing.
 * @param twoStep whoever keeps the accounts signs in with a code of an authenticator too
 */
export function endSetUp(context: Context, requestId: string, twoStep: boolean): Promise<void> {
	return write(
		context,
		'keep the site',
		{ id: requestId, content: ['end set-up', twoStep] },
		async ({ tx, now, record }) => {
			const [held] = await tx.select().from(site).for('update');
			if (!held || held.name === UNNAMED.name)
				throw new Refusal('invalid', 'Name the site first.', 'name');
			if (held.setUpAt) return;
			const twoStepRoles: Role[] = twoStep ? UNNAMED.twoStepRoles : [];
			await tx.update(site).set({ setUpAt: now, twoStepRoles });
			const lacks = await missingHere(tx, held);
			record('site.set-up', {
				of: '1',
				payload: { lacks: lacks.map(({ what }) => what), twoStep }
			});
		}
	);
}
