import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { and, eq, isNull } from 'drizzle-orm';
import { createHash, randomBytes } from 'node:crypto';
import type { Connection, Database } from '../db/client.ts';
import type { Actor, Unattended } from '../kernel/context.ts';
import type { Role } from '../kernel/permissions.ts';
import { writeUnattended } from '../kernel/write.ts';
import * as schema from '../db/schema/index.ts';

const DAY_S = 86_400;
/** Tries to sign in from one address within the window before it must wait. Site default. */
const SIGN_IN_TRIES = 20;
const SIGN_IN_WINDOW_S = 60;
const MIN_PASSWORD = 12;

export interface AuthOptions {
	secret: string;
	/** Address that people reach the app under; https turns the Secure flag of cookies on. */
	origin: string;
}

/** Header that the server itself sets from the connection; never taken from the client. */
const CLIENT_HEADER = 'x-grevan-client';

/** Accounts, sessions in the database, rate limits in the database. */
export function createAuth(db: Database, options: AuthOptions) {
	return betterAuth({
		appName: 'Grevan',
		secret: options.secret,
		baseURL: options.origin,
		trustedOrigins: [options.origin],
		database: drizzleAdapter(db, { provider: 'pg', schema }),
		emailAndPassword: { enabled: true, disableSignUp: true, minPasswordLength: MIN_PASSWORD },
		user: {
			additionalFields: {
				role: { type: 'string', input: false, defaultValue: 'viewer' },
				initials: { type: 'string', input: false, defaultValue: '' }
			}
		},
		session: { expiresIn: 7 * DAY_S, updateAge: DAY_S },
		rateLimit: {
			enabled: true,
			storage: 'database',
			window: 60,
			max: 200,
			customRules: { '/sign-in/email': { window: SIGN_IN_WINDOW_S, max: SIGN_IN_TRIES } }
		},
		advanced: {
			cookiePrefix: 'grevan',
			useSecureCookies: options.origin.startsWith('https:'),
			ipAddress: { ipAddressHeaders: [CLIENT_HEADER] }
		},
		telemetry: { enabled: false },
		logger: { disabled: true }
	});
}

export type Auth = ReturnType<typeof createAuth>;

export type SignIn =
	{ ok: true; cookies: string[] } | { ok: false; status: number; message: string };

/** Signs in through the rate-limited handler; the cookies are set by the caller's answer. */
export async function signIn(
	auth: Auth,
	origin: string,
	given: { email: string; password: string; client: string }
): Promise<SignIn> {
	const response = await auth.handler(
		new Request(`${origin}/api/auth/sign-in/email`, {
			method: 'POST',
			headers: { 'content-type': 'application/json', origin, [CLIENT_HEADER]: given.client },
			body: JSON.stringify({ email: given.email, password: given.password })
		})
	);
	if (response.ok) return { ok: true, cookies: response.headers.getSetCookie() };
	if (response.status >= 500) throw new Error(`sign-in failed with ${response.status}`);
	return {
		ok: false,
		status: response.status,
		message:
			response.status === 429
				? 'Too many tries from this device. Wait a minute, then try again.'
				: 'No account with this address and password.'
	};
}

/** Who a request comes from, by its session cookie; null when nobody is signed in. */
export async function actorOf(auth: Auth, headers: Headers): Promise<Actor | null> {
	const found = await auth.api.getSession({ headers });
	if (!found) return null;
	const { id, name, role, initials } = found.user;
	return { id, name, initials: initials ?? '', role: role as Role };
}

export interface NewAccount {
	id?: string;
	name: string;
	email: string;
	password: string;
	role: Role;
	initials: string;
}

/** Makes an account, or gives an existing one this password and role. */
export async function putAccount(
	auth: Auth,
	context: Unattended,
	given: NewAccount
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

/** A password as it is kept. @throws Error on one that is too short */
export async function hashPassword(auth: Auth, password: string): Promise<string> {
	if (password.length < MIN_PASSWORD)
		throw new Error(`A password has at least ${MIN_PASSWORD} characters.`);
	const context = await auth.$context;
	return context.password.hash(password);
}

/** Writes the rows of an account within a write. */
export async function writeAccount(
	tx: Connection,
	given: NewAccount,
	password: string
): Promise<{ userId: string; made: boolean }> {
	const id = given.id ?? randomBytes(12).toString('hex');
	const [row] = await tx
		.insert(schema.user)
		.values({
			id,
			name: given.name,
			email: given.email.toLowerCase(),
			emailVerified: true,
			role: given.role,
			initials: given.initials
		})
		.onConflictDoUpdate({
			target: schema.user.email,
			set: { role: given.role, name: given.name }
		})
		.returning({ id: schema.user.id });
	const userId = row?.id ?? id;
	await tx
		.insert(schema.account)
		.values({
			id: `${userId}-password`,
			accountId: userId,
			providerId: 'credential',
			userId,
			password
		})
		.onConflictDoUpdate({ target: schema.account.id, set: { password } });
	return { userId, made: userId === id };
}

const hashKey = (key: string) => createHash('sha256').update(key).digest('hex');

/** Makes a key for the calculation interface; it is shown once and kept only as a hash. */
export async function makeApiKey(
	context: Unattended,
	userId: string,
	name: string
): Promise<string> {
	const key = `grv_${randomBytes(24).toString('base64url')}`;
	await writeUnattended(context, null, async (at) => {
		await at.tx.insert(schema.apiKey).values({ hash: hashKey(key), name, userId });
		at.record('account.key-made', { of: userId, payload: { name } });
	});
	return key;
}

/** Whether a key is known and not revoked. */
export async function apiKeyHolds(db: Connection, key: string): Promise<boolean> {
	const rows = await db
		.select({ hash: schema.apiKey.hash })
		.from(schema.apiKey)
		.where(and(eq(schema.apiKey.hash, hashKey(key)), isNull(schema.apiKey.revokedAt)));
	return rows.length > 0;
}
