import { eq } from 'drizzle-orm';
import type { WayIn } from '../../../core/access/session.ts';
import { session, user, verification } from '../db/schema/index.ts';
import type { Actor, Unattended } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, writeUnattended } from '../kernel/write.ts';
import { askAuth, type Auth } from '../web/auth.ts';
import { tidyAddress } from './accounts.ts';
import {
	attemptKey,
	countAddressFailure,
	forgiveTries,
	noteRefused,
	requireQuietAddress,
	takeTry,
	tooMany,
	useCode
} from './attempts.ts';
import { keepDevice } from './devices.ts';

/** Where somebody comes from, as the server sees it. */
export interface Entrance {
	auth: Auth;
	/** Address that the app is reached under. */
	origin: string;
	/** Address of the one who asks. */
	client: string;
	/** What their browser keeps of the device; undefined at first. */
	deviceKey: string | undefined;
	/** What their browser says that it is. */
	agent: string | null;
}

/** Somebody is in. */
export interface Entered {
	cookies: string[];
	deviceKey: string;
}

/** They have to show a code of their authenticator as well. */
export interface CodeAsked {
	cookies: string[];
	code: true;
}

const WRONG = 'No account with this address and password.';
const CLOSED = 'This account is closed. Ask the one who keeps the accounts.';
/** Characters that are kept of what a browser says that it is. */
const LONGEST_AGENT = 300;

/**
 * Signs in with address and password.
 * @param shared whether the device is a bench that several share; undefined leaves it as it is
 * @throws Refusal where it is wrong, the account is closed, or one has to wait
 */
export async function signIn(
	context: Unattended,
	at: Entrance,
	given: { email: string; password: string; shared?: boolean }
): Promise<Entered | CodeAsked> {
	await requireQuietAddress(context, at.client);
	const email = tidyAddress(given.email);
	const key = attemptKey('password', email);
	const [known] = await context.db
		.select({ id: user.id, disabledAt: user.disabledAt })
		.from(user)
		.where(eq(user.email, email));
	const tries = await takeTry(context, { key, way: 'password', userId: known?.id });
	const { status, body, cookies } = await askAuth(at.auth, at.origin, '/sign-in/email', {
		body: { email, password: given.password },
		client: at.client
	});
	if (status === 429) throw tooMany();
	if (body.twoFactorRedirect === true) return { cookies, code: true };
	if (status >= 400 || typeof body.token !== 'string') {
		await countAddressFailure(context, at.client);
		const closed = known?.disabledAt && status !== 401;
		await noteRefused(context, known?.id, 'password', closed ? 'closed' : 'wrong', tries);
		throw new Refusal('forbidden', closed ? CLOSED : WRONG);
	}
	return enter(context, at, {
		key,
		tries,
		token: body.token,
		cookies,
		shared: given.shared
	});
}

/**
 * Goes on with a sign-in that asked for a code: of the authenticator, or one of the codes for when it is lost.
 * @param cookie what the browser was given with the question
 * @throws Refusal where it is wrong, or one has to wait
 */
export async function giveCode(
	context: Unattended,
	at: Entrance,
	given: { code: string; cookie: string | null; challenge: string | undefined; shared?: boolean }
): Promise<Entered> {
	const userId = await challenged(context, given.challenge);
	const code = given.code.replace(/\s/g, '');
	const recovery = !/^\d{6}$/.test(code);
	const key = attemptKey('code', userId);
	const tries = await takeTry(context, { key, way: 'code', userId });
	// A code opens once, also within its half minute: who looked over a shoulder comes too late.
	if (!recovery && (await useCode(context, userId, code)) > 1) {
		await noteRefused(context, userId, 'code', 'used', tries);
		throw new Refusal('forbidden', 'This code was used already. Wait for the next.');
	}
	const { status, body, cookies } = await askAuth(
		at.auth,
		at.origin,
		recovery ? '/two-factor/verify-backup-code' : '/two-factor/verify-totp',
		{ body: { code }, client: at.client, cookie: given.cookie }
	);
	if (status >= 400 || typeof body.token !== 'string') {
		await noteRefused(context, userId, 'code', 'wrong', tries);
		throw new Refusal(
			'forbidden',
			'This code is not the one shown now. Wait for the next, or begin again with your password.'
		);
	}
	const [whose] = await context.db
		.select({ email: user.email })
		.from(user)
		.where(eq(user.id, userId));
	return enter(context, at, {
		key,
		also: whose && attemptKey('password', whose.email),
		tries,
		token: body.token,
		cookies,
		shared: given.shared
	});
}

/**
 * Signs the person of a page in again, where their session ended: by PIN at a shared bench, or with their password.
 * @throws Refusal where there is no such account, it is wrong, or one has to wait
 */
export async function signInAgain(
	context: Unattended,
	at: Entrance,
	given: { person: string; password: string }
): Promise<Entered | CodeAsked> {
	const [whose] = await context.db
		.select({ email: user.email })
		.from(user)
		.where(eq(user.id, given.person));
	// An account that is not there is told from a wrong password by nobody.
	return signIn(context, at, { email: whose?.email ?? '', password: given.password });
}

/**
 * Whose code is asked for, by the cookie that came with the question; the account service itself checks its signature.
 * @throws Refusal where nobody is asked
 */
async function challenged({ db }: Unattended, challenge: string | undefined): Promise<string> {
	const identifier = challenge?.split('.')[0] ?? '';
	const [row] = await db
		.select({ userId: verification.value })
		.from(verification)
		.where(eq(verification.identifier, identifier));
	if (!row)
		throw new Refusal('forbidden', 'This took too long. Begin again with your password.', 'again');
	return row.userId;
}

interface Opened {
	/** What the tries were counted by, and what is forgiven with them. */
	key: string;
	also?: string;
	tries: number;
	token: string;
	cookies: string[];
	shared?: boolean;
}

/** A session was opened with a password: it gets its device, and the log its entry. */
async function enter(context: Unattended, at: Entrance, opened: Opened): Promise<Entered> {
	return writeUnattended(context, await personWith(context, opened.token), async (work) => {
		const device = await keepDevice(
			work.tx,
			{ key: at.deviceKey, shared: opened.shared },
			work.now
		);
		await forgiveTries(work.tx, opened.key);
		if (opened.also) await forgiveTries(work.tx, opened.also);
		await dress(work, opened.token, {
			device,
			way: 'password',
			agent: at.agent,
			failuresBefore: opened.tries - 1
		});
		return { cookies: opened.cookies, deviceKey: device.key };
	});
}

/** Whose session a token opens: what is recorded of it is theirs. */
async function personWith({ db }: Unattended, token: string): Promise<Actor | null> {
	const [row] = await db
		.select({ id: user.id, name: user.name, initials: user.initials, role: user.role })
		.from(session)
		.innerJoin(user, eq(user.id, session.userId))
		.where(eq(session.token, token));
	return row ?? null;
}

/** Gives a new session what a visit has to know of it, and records that it was begun. */
export async function dress(
	{ tx, now, record }: Work,
	token: string,
	given: {
		device: { id: string; shared: boolean };
		way: WayIn;
		agent: string | null;
		failuresBefore: number;
		/** Who worked on the device until then. */
		from?: string | null;
	}
): Promise<void> {
	const { device, way, agent, failuresBefore } = given;
	const [row] = await tx
		.update(session)
		.set({
			deviceId: device.id,
			shared: device.shared,
			way,
			userAgent: agent?.slice(0, LONGEST_AGENT) ?? null,
			failuresBefore,
			seenAt: now,
			provenAt: now,
			provenBy: way
		})
		.where(eq(session.token, token))
		.returning({ userId: session.userId });
	if (!row) throw new Error('A session that was just opened is not there.');
	record('session.begun', {
		of: row.userId,
		payload: { way, shared: device.shared, from: given.from ?? null }
	});
}
