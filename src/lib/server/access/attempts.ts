import { eq } from 'drizzle-orm';
import { waitLeftS, waitWords } from '../../../core/access/lockout.ts';
import type { WayIn } from '../../../core/access/session.ts';
import type { Connection } from '../db/client.ts';
import { countFailure, countRequest, failuresOf, requestsOf } from '../db/queries/access.ts';
import { signInFailure } from '../db/schema/index.ts';
import type { Unattended } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { sha256 } from '../kernel/sha256.ts';
import { writeUnattended } from '../kernel/write.ts';

/** What tries are counted by: nobody reads from the table which addresses were tried. */
export const attemptKey = (way: 'password' | 'pin' | 'code', whose: string): string =>
	`${way}:${sha256(whose.trim().toLowerCase())}`;

/** Subject of an entry about nobody that is known. */
const UNKNOWN = 'unknown';

/** Records that somebody was not let in. */
export async function noteRefused(
	context: Unattended,
	userId: string | undefined,
	way: WayIn | 'code',
	why: 'wrong' | 'wait' | 'closed' | 'device' | 'used',
	failures?: number
): Promise<void> {
	await writeUnattended(context, null, async ({ record }) =>
		record('session.refused', { of: userId ?? UNKNOWN, payload: { way, why, failures } })
	);
}

/**
 * Takes one try at getting in. It counts as failed until {@link forgiveTries} takes it back, so that tries sent at
 * once are as many as they are.
 * @param by what it is counted by, and whose it is where they are known
 * @returns the tries in a row with this one
 * @throws Refusal where one has to wait; that is recorded
 */
export async function takeTry(
	context: Unattended,
	by: { key: string; way: WayIn | 'code'; userId: string | undefined }
): Promise<number> {
	const { tries, waitS } = await writeUnattended(context, null, async ({ tx, now }) => {
		const { key } = by;
		const before = await failuresOf(tx, key, now);
		const waitS = before ? waitLeftS(before.failures, before.lastAt, now) : 0;
		if (waitS === 0) await countFailure(tx, key, now);
		return { tries: (before?.failures ?? 0) + 1, waitS };
	});
	if (waitS === 0) return tries;
	await noteRefused(context, by.userId, by.way, 'wait');
	throw new Refusal('busy', `Too many tries. Wait ${waitWords(waitS)}, then try again.`);
}

/** The person is in. */
export const forgiveTries = (tx: Connection, key: string) =>
	tx.delete(signInFailure).where(eq(signInFailure.key, key));

const WINDOW_MS = 60_000;
/** Sign-ins that may fail from one address in a minute, however many accounts it tries. Site default. */
const ADDRESS_FAILURES = 20;
const failuresFrom = (client: string) => `sign-in failed:${client}`;
/** The refusal of an address that asks too much. */
export const tooMany = () =>
	new Refusal('busy', 'Too many tries from this device. Wait a minute, then try again.');

/** A code of an authenticator holds for half a minute; one before and one after are taken too. */
const CODE_HOLDS_MS = 90_000;

/** Notes that a code was given. @returns how often it was, this time included */
export const useCode = (
	{ db, now }: Pick<Unattended, 'db' | 'now'>,
	userId: string,
	code: string
): Promise<number> =>
	countRequest(db, attemptKey('code', `${userId} ${code}`), CODE_HOLDS_MS, now());

/** @throws Refusal where too many sign-ins failed from an address lately */
export async function requireQuietAddress(
	{ db, now }: Pick<Unattended, 'db' | 'now'>,
	client: string
): Promise<void> {
	if ((await requestsOf(db, failuresFrom(client), WINDOW_MS, now())) >= ADDRESS_FAILURES)
		throw tooMany();
}

/** A sign-in from an address has failed. */
export const countAddressFailure = ({ db, now }: Pick<Unattended, 'db' | 'now'>, client: string) =>
	countRequest(db, failuresFrom(client), WINDOW_MS, now());

/**
 * What one address may ask in a minute, however many accounts it tries.
 * @throws Refusal beyond that
 */
export async function limitAddress(
	{ db, now }: Pick<Unattended, 'db' | 'now'>,
	what: string,
	client: string,
	most: number
): Promise<void> {
	if ((await countRequest(db, `${what}:${client}`, WINDOW_MS, now())) > most) throw tooMany();
}
