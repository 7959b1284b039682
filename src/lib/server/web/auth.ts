import { betterAuth, type BetterAuthPlugin } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { APIError, createAuthEndpoint } from 'better-auth/api';
import { setSessionCookie } from 'better-auth/cookies';
import { twoFactor } from 'better-auth/plugins/two-factor';
import { eq } from 'drizzle-orm';
import { createHmac } from 'node:crypto';
import { z } from 'zod';
import { PASSWORD_LEAST, PASSWORD_MOST } from '../../../core/access/secrets.ts';
import type { WayIn } from '../../../core/access/session.ts';
import type { Database } from '../db/client.ts';
import * as schema from '../db/schema/index.ts';
import type { Actor, Proof } from '../kernel/context.ts';
import type { Role } from '../kernel/permissions.ts';

const DAY_S = 86_400;
/** Requests of one kind that the account service takes from one address within the window. Site default. */
const SIGN_IN_TRIES = 200;
const SIGN_IN_WINDOW_S = 60;
/** Longer than a site may let a session last; what it has chosen is asked at each visit. */
const LONGEST_SESSION_S = 8 * DAY_S;

export interface AuthOptions {
	secret: string;
	/** Address that people reach the app under; https turns the Secure flag of cookies on. */
	origin: string;
}

/** Header that the server itself sets from the connection; never taken from the client. */
const CLIENT_HEADER = 'x-grevan-client';

/** Opens a session for a person who showed in another way that it is them; nothing outside the server reaches it. */
const sessionOpener = () =>
	({
		id: 'session-opener',
		endpoints: {
			openSession: createAuthEndpoint.serverOnly(
				{ method: 'POST', body: z.object({ userId: z.string().max(100) }) },
				async (ctx) => {
					const { internalAdapter } = ctx.context;
					const user = await internalAdapter.findUserById(ctx.body.userId);
					if (!user) throw new APIError('NOT_FOUND');
					const session = await internalAdapter.createSession(user.id);
					await setSessionCookie(ctx, { session, user });
					return ctx.json({ token: session.token });
				}
			)
		}
	}) satisfies BetterAuthPlugin;

/** Accounts, sessions in the database, rate limits in the database. */
export function createAuth(db: Database, options: AuthOptions) {
	return betterAuth({
		appName: 'Grevan',
		secret: options.secret,
		baseURL: options.origin,
		trustedOrigins: [options.origin],
		database: drizzleAdapter(db, { provider: 'pg', schema }),
		emailAndPassword: {
			enabled: true,
			disableSignUp: true,
			minPasswordLength: PASSWORD_LEAST,
			maxPasswordLength: PASSWORD_MOST
		},
		user: {
			additionalFields: {
				role: { type: 'string', input: false, defaultValue: 'viewer' },
				initials: { type: 'string', input: false, defaultValue: '' },
				disabledAt: { type: 'date', input: false, required: false },
				card: { type: 'string', input: false, required: false, returned: false },
				pinHash: { type: 'string', input: false, required: false }
			}
		},
		session: {
			expiresIn: LONGEST_SESSION_S,
			disableSessionRefresh: true,
			additionalFields: {
				deviceId: { type: 'string', input: false, required: false },
				shared: { type: 'boolean', input: false, required: false },
				way: { type: 'string', input: false, required: false },
				seenAt: { type: 'date', input: false, required: false },
				provenAt: { type: 'date', input: false, required: false },
				provenBy: { type: 'string', input: false, required: false },
				failuresBefore: { type: 'number', input: false, required: false }
			}
		},
		plugins: [
			// The server counts tries itself, for every way in alike.
			twoFactor({ issuer: 'Grevan', accountLockout: { enabled: false } }),
			sessionOpener()
		],
		databaseHooks: {
			session: {
				create: {
					async before({ userId }) {
						const [found] = await db
							.select({ disabledAt: schema.user.disabledAt })
							.from(schema.user)
							.where(eq(schema.user.id, userId));
						// Nobody comes in with an account that is closed, by whatever way.
						return found && !found.disabledAt ? undefined : false;
					}
				}
			}
		},
		rateLimit: {
			enabled: true,
			storage: 'database',
			window: 60,
			max: 200,
			customRules: {
				'/sign-in/email': { window: SIGN_IN_WINDOW_S, max: SIGN_IN_TRIES },
				'/two-factor/*': { window: SIGN_IN_WINDOW_S, max: SIGN_IN_TRIES }
			}
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

/** What the account service answered, and the cookies that it sets. */
export interface AuthAnswer {
	status: number;
	body: Record<string, unknown>;
	cookies: string[];
}

/**
 * Asks the account service through its rate-limited handler.
 * @throws Error where it fails
 */
export async function askAuth(
	auth: Auth,
	origin: string,
	path: `/${string}`,
	given: { body: object; client: string; cookie?: string | null }
): Promise<AuthAnswer> {
	const response = await auth.handler(
		new Request(`${origin}/api/auth${path}`, {
			method: 'POST',
			headers: {
				'content-type': 'application/json',
				origin,
				[CLIENT_HEADER]: given.client,
				...(given.cookie ? { cookie: given.cookie } : {})
			},
			body: JSON.stringify(given.body)
		})
	);
	if (response.status >= 500) throw new Error(`${path} failed with ${response.status}`);
	const body = (await response.json().catch(() => ({}))) as Record<string, unknown> | null;
	return { status: response.status, body: body ?? {}, cookies: response.headers.getSetCookie() };
}

/** Opens a session for a person; the cookies are set by the caller's answer. */
export async function openSession(
	auth: Auth,
	userId: string
): Promise<{ token: string; cookies: string[] }> {
	const { headers, response } = await auth.api.openSession({
		body: { userId },
		returnHeaders: true
	});
	return { token: response.token, cookies: headers.getSetCookie() };
}

/** A session as a visit sees it. */
export interface SessionSeen {
	id: string;
	begunAt: Date;
	seenAt: Date;
	shared: boolean;
	way: WayIn;
	proof: Proof;
	/** Tries that failed since the person was in the time before. */
	failuresBefore: number;
	/** Their person signs with a PIN. */
	hasPin: boolean;
}

/** Who a request comes from, by its session cookie; null when nobody is signed in. */
export async function sessionOf(
	auth: Auth,
	headers: Headers
): Promise<{ actor: Actor; session: SessionSeen; twoStep: boolean } | null> {
	const found = await auth.api.getSession({ headers });
	if (!found || found.user.disabledAt) return null;
	const { id, name, role, initials } = found.user;
	const { session } = found;
	return {
		actor: { id, name, initials: initials ?? '', role: role as Role },
		session: {
			id: session.id,
			begunAt: session.createdAt,
			seenAt: session.seenAt ?? session.createdAt,
			shared: session.shared ?? false,
			way: (session.way ?? 'password') as WayIn,
			proof: {
				at: session.provenAt ?? session.createdAt,
				by: (session.provenBy ?? 'password') as WayIn
			},
			failuresBefore: session.failuresBefore ?? 0,
			hasPin: found.user.pinHash != null
		},
		twoStep: found.user.twoFactorEnabled ?? false
	};
}

/** A password as it is kept. */
export async function hashPassword(auth: Auth, password: string): Promise<string> {
	return (await auth.$context).password.hash(password);
}

/** Whether a password is the one that was kept. */
export async function passwordHolds(auth: Auth, hash: string, given: string): Promise<boolean> {
	return (await auth.$context).password.verify({ hash, password: given });
}

/**
 * A PIN as it is hashed: bound to its person and to the secret of this installation, which the database does not hold.
 * Of the hash of four digits alone all ten thousand are tried in minutes.
 */
async function boundPin(auth: Auth, userId: string, pin: string): Promise<string> {
	const { secret } = await auth.$context;
	return createHmac('sha256', secret).update(`pin ${userId} ${pin}`).digest('hex');
}

/** A PIN as it is kept. */
export const hashPin = async (auth: Auth, userId: string, pin: string): Promise<string> =>
	hashPassword(auth, await boundPin(auth, userId, pin));

/** Whether a PIN is the one that was kept. */
export const pinHolds = async (
	auth: Auth,
	person: { id: string; pinHash: string },
	pin: string
): Promise<boolean> => passwordHolds(auth, person.pinHash, await boundPin(auth, person.id, pin));
