import { randomInt } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { PIN_TRIES } from '../../../core/access/lockout.ts';
import { pinFault } from '../../../core/access/secrets.ts';
import type { WayIn } from '../../../core/access/session.ts';
import type { Connection } from '../db/client.ts';
import { session, user } from '../db/schema/index.ts';
import type { Actor, Context, Unattended } from '../kernel/context.ts';
import { requirePassword } from '../kernel/proof.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Requested, write, writeUnattended } from '../kernel/write.ts';
import { type Auth, hashPin, openSession, pinHolds } from '../web/auth.ts';
import { attemptKey, forgiveTries, limitAddress, noteRefused, takeTry } from './attempts.ts';
import { deviceOf, takesPins } from './devices.ts';
import { requireOwnPassword } from './own-password.ts';
import { dress, type Entrance } from './sign-in.ts';

/** What one address may try in a minute: a busy bench hands over often. Site default. */
const ADDRESS_TRIES = 40;

/** Chooses one's own PIN. @throws Refusal on one that is too plain, or without one's password */
export async function choosePin(
	auth: Auth,
	context: Context,
	requestId: string,
	pin: string
): Promise<void> {
	requirePassword(context, 'choose a PIN');
	const fault = pinFault(pin);
	if (fault) throw new Refusal('invalid', fault, 'pin');
	const pinHash = await hashPin(auth, context.actor.id, pin);
	// What is asked is kept as a hash that a PIN would be guessed from: the PIN is no part of it.
	const request: Requested = { id: requestId, content: ['pin', context.actor.id] };
	await write(context, 'view', request, async ({ tx, actor, record }) => {
		await tx.update(user).set({ pinHash }).where(eq(user.id, actor.id));
		await forgiveTries(tx, attemptKey('pin', actor.id));
		record('account.pin-chosen', { of: actor.id, payload: {} });
	});
}

/** Letters and digits that are not taken for one another. */
const CARD_SIGNS = '23456789ABCDEFGHJKLMNPQRSTUVWXYZ';
const CARD_LENGTH = 10;
/** What a personal card begins with, so that a scan of one is known for what it is. */
export const CARD_PATTERN = /^GC-[2-9A-HJ-NP-Z]{10}$/;

/** Gives oneself a new personal card; the one before opens nothing from then on. */
export async function newCard(context: Context, requestId: string): Promise<string> {
	const card = `GC-${Array.from({ length: CARD_LENGTH }, () => CARD_SIGNS[randomInt(CARD_SIGNS.length)]).join('')}`;
	return write(
		context,
		'view',
		{ id: requestId, content: ['card', context.actor.id] },
		async ({ tx, actor, record }) => {
			await tx.update(user).set({ card }).where(eq(user.id, actor.id));
			record('account.card-given', { of: actor.id, payload: {} });
			return card;
		}
	);
}

/** What somebody needs of a person who comes to the bench. */
interface Found extends Actor {
	pinHash: string | null;
	disabledAt: Date | null;
}
const FOUND = {
	id: user.id,
	name: user.name,
	initials: user.initials,
	role: user.role,
	pinHash: user.pinHash,
	disabledAt: user.disabledAt
};

/**
 * The person of a card, or of initials where only one has them.
 * @throws Refusal where there is none, or more than one
 */
export async function personOf(db: Connection, who: string): Promise<Found> {
	const word = who.trim().toUpperCase();
	const byCard = CARD_PATTERN.test(word);
	const found = byCard
		? await db.select(FOUND).from(user).where(eq(user.card, word))
		: (await db.select(FOUND).from(user)).filter(
				({ initials, disabledAt }) => initials.toUpperCase() === word && !disabledAt
			);
	if (found.length > 1)
		throw new Refusal('invalid', 'More than one person has these initials. Scan your card.', 'who');
	const [one] = found;
	if (!one || one.disabledAt)
		throw new Refusal(
			'not found',
			byCard ? 'Nobody has this card any more.' : 'Nobody has these initials.',
			'who'
		);
	return one;
}

/** @throws Refusal where there is no such account, or it is closed */
async function openAccount(db: Connection, id: string): Promise<Found> {
	const [one] = await db.select(FOUND).from(user).where(eq(user.id, id));
	if (!one || one.disabledAt)
		throw new Refusal('forbidden', 'This account is closed. Ask the one who keeps the accounts.');
	return one;
}

/**
 * Tries a PIN; too many wrong ones in a row take it away.
 * @returns tries before this one that failed
 * @throws Refusal where it is wrong, or one has to wait
 */
async function tryPin(
	auth: Auth,
	context: Unattended,
	person: { id: string; pinHash: string | null },
	pin: string
): Promise<number> {
	if (!person.pinHash)
		throw new Refusal(
			'forbidden',
			'No PIN was chosen for this account. Sign in with your password and choose one under Settings.',
			'pin'
		);
	const key = attemptKey('pin', person.id);
	const tries = await takeTry(context, { key, way: 'pin', userId: person.id });
	if (await pinHolds(auth, { id: person.id, pinHash: person.pinHash }, pin)) {
		await forgiveTries(context.db, key);
		return tries - 1;
	}
	await noteRefused(context, person.id, 'pin', 'wrong', tries);
	if (tries >= PIN_TRIES) {
		await writeUnattended(context, null, async ({ tx, record }) => {
			await tx.update(user).set({ pinHash: null }).where(eq(user.id, person.id));
			await forgiveTries(tx, key);
			record('account.pin-taken', { of: person.id, payload: { failures: tries } });
		});
		throw new Refusal(
			'forbidden',
			'Too many wrong PINs: it opens nothing any more. Sign in with your password and choose another.',
			'pin'
		);
	}
	throw new Refusal('forbidden', 'This is not the PIN.', 'pin');
}

/**
 * Hands a shared bench over to the person of a card, of initials or of an account, with their PIN; whoever was there is
 * out of it.
 * @throws Refusal where the device takes no PINs, the person is not known, or the PIN is wrong
 */
export async function handOver(
	context: Unattended,
	at: Entrance,
	given: {
		who: string | { account: string };
		pin: string;
		from: { actor: Actor; sessionId: string } | null;
	}
): Promise<{ cookies: string[]; userId: string }> {
	await limitAddress(context, 'hand-over', at.client, ADDRESS_TRIES);
	const device = await deviceOf(context.db, at.deviceKey);
	if (!takesPins(device, context.now())) {
		await noteRefused(context, undefined, 'pin', 'device');
		throw new Refusal(
			'forbidden',
			'This device takes no PIN yet: sign in with your password and say that it is a shared bench.'
		);
	}
	const { who } = given;
	const person =
		typeof who === 'string'
			? await personOf(context.db, who)
			: await openAccount(context.db, who.account);
	const failuresBefore = await tryPin(at.auth, context, person, given.pin);
	const { token, cookies } = await openSession(at.auth, person.id);
	await writeUnattended(context, person, async (work) => {
		const { from } = given;
		await dress(work, token, {
			device,
			way: 'pin',
			agent: at.agent,
			failuresBefore,
			from: from?.actor.id ?? null
		});
		if (!from) return;
		const { rowCount } = await work.tx.delete(session).where(eq(session.id, from.sessionId));
		if (rowCount)
			work.record('session.ended', { of: from.actor.id, payload: { why: 'handed over' } });
	});
	return { cookies, userId: person.id };
}

/**
 * The person of a card or of initials, who shows with their PIN that they stand there; nobody is signed in by it.
 * @throws Refusal where they are not known, the PIN is wrong, or one has to wait
 */
export async function standsThere(
	auth: Auth,
	context: Unattended,
	client: string,
	given: { who: string; pin: string }
): Promise<Pick<Actor, 'id' | 'name' | 'role'>> {
	await limitAddress(context, 'hand-over', client, ADDRESS_TRIES);
	const person = await personOf(context.db, given.who);
	await tryPin(auth, context, person, given.pin);
	return person;
}

/**
 * Shows again that it is the person of this session, with PIN or password.
 * @throws Refusal where it is wrong, or one has to wait
 */
export async function prove(
	auth: Auth,
	context: Context,
	sessionId: string,
	given: { by: WayIn; secret: string }
): Promise<void> {
	const { actor, db } = context;
	if (given.by === 'pin') {
		const [person] = await db.select(FOUND).from(user).where(eq(user.id, actor.id));
		if (!person) throw new Refusal('forbidden', 'You are signed out. Sign in again.');
		await tryPin(auth, context, person, given.secret);
	} else
		await requireOwnPassword(auth, context, given.secret, {
			message: 'This is not the password.',
			path: 'secret'
		});
	await writeUnattended(context, actor, async ({ tx, now }) => {
		await tx
			.update(session)
			.set({ provenAt: now, provenBy: given.by })
			.where(eq(session.id, sessionId));
	});
}
