import { randomBytes } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { Connection } from '../db/client.ts';
import { account, user } from '../db/schema/index.ts';
import type { Unattended } from '../kernel/context.ts';
import type { Role } from '../kernel/permissions.ts';
import { writeUnattended } from '../kernel/write.ts';
import { type Auth, hashPassword } from '../web/auth.ts';

export interface NewAccount {
	id?: string;
	name: string;
	email: string;
	role: Role;
	initials: string;
}

/** Makes an account, or gives an existing one this password and role. From the command line and for the demo. */
export async function putAccount(
	auth: Auth,
	context: Unattended,
	given: NewAccount & { password: string }
): Promise<string> {
	const password = await hashPassword(auth, given.password);
	return writeUnattended(context, null, async (at) => {
		const { userId, made } = await writeAccount(at.tx, given, password);
		at.record(made ? 'account.made' : 'account.changed', {
			of: userId,
			payload: { role: given.role }
		});
		return userId;
	});
}

/** Writes the rows of an account within a write. */
export async function writeAccount(
	tx: Connection,
	given: NewAccount,
	password: string
): Promise<{ userId: string; made: boolean }> {
	const id = given.id ?? randomBytes(12).toString('hex');
	const [row] = await tx
		.insert(user)
		.values({
			id,
			name: given.name,
			email: tidyAddress(given.email),
			emailVerified: true,
			role: given.role,
			initials: given.initials
		})
		.onConflictDoUpdate({
			target: user.email,
			set: { role: given.role, name: given.name }
		})
		.returning({ id: user.id });
	const userId = row?.id ?? id;
	await setPassword(tx, userId, password);
	return { userId, made: userId === id };
}

/** Gives an account a password, as its hash. */
export const setPassword = (tx: Connection, userId: string, password: string) =>
	tx
		.insert(account)
		.values({
			id: `${userId}-password`,
			accountId: userId,
			providerId: 'credential',
			userId,
			password
		})
		.onConflictDoUpdate({ target: account.id, set: { password } });

/** The hash of a person's password; undefined where they have none yet. */
export async function passwordHashOf(db: Connection, userId: string): Promise<string | undefined> {
	const [row] = await db
		.select({ password: account.password })
		.from(account)
		.where(eq(account.userId, userId));
	return row?.password ?? undefined;
}

/** An address as it is kept and looked for. */
export const tidyAddress = (address: string): string => address.trim().toLowerCase();
