import { randomInt } from 'node:crypto';
import { and, eq, gt, isNull } from 'drizzle-orm';
import {
	SCREEN_CODE_MIN,
	SCREEN_HOURS,
	screenCode,
	screenLit,
	type ScreenShows
} from '../../../core/access/screen.ts';
import type { Connection } from '../db/client.ts';
import { endScreen, showOn, sweepScreens } from '../db/queries/screens.ts';
import { secondScreen } from '../db/schema/index.ts';
import type { Context, Unattended } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { sha256 } from '../kernel/sha256.ts';
import { write, writeUnattended } from '../kernel/write.ts';
import { attemptKey, forgiveTries, takeTry } from './attempts.ts';
import { drawSecret } from './draw-secret.ts';

const MINUTE_MS = 60_000;

/**
 * Opens a second screen for what its person does: whoever types the code within some minutes follows it.
 * @param asked id made by the device, so that asked again it is the same screen, and the same code
 */
export async function openScreen(
	context: Context,
	asked: { id: string; shows: ScreenShows }
): Promise<{ code: string }> {
	const code = screenCode((below) => randomInt(below));
	return write(
		context,
		'inspect',
		{ id: asked.id, content: ['screen', asked.shows.about] },
		async ({ tx, actor, now, record }) => {
			await sweepScreens(tx, now);
			await tx.insert(secondScreen).values({
				id: asked.id,
				codeHash: sha256(code),
				codeUntil: new Date(now.getTime() + SCREEN_CODE_MIN * MINUTE_MS),
				userId: actor.id,
				shows: asked.shows,
				until: new Date(now.getTime() + SCREEN_HOURS * 60 * MINUTE_MS)
			});
			record('screen.opened', { of: actor.id, payload: { about: asked.shows.about } });
			return { code };
		}
	);
}

/** Shows what its person does now. @returns whether a screen has taken the code. @throws Refusal where the screen is dark, or another's */
export async function showScreen(
	context: Context,
	id: string,
	shows: ScreenShows
): Promise<{ lit: boolean }> {
	const shown = await showOn(context.db, { id, userId: context.actor.id }, shows);
	if (!shown) throw new Refusal('not found', 'That second screen shows nothing any more.');
	return { lit: shown.tokenHash !== null };
}

/** The person takes it away. */
export async function darkenScreen(context: Context, id: string): Promise<void> {
	await endScreen(context.db, { id, userId: context.actor.id, now: context.now() });
}

/**
 * Lights a screen with its code, once.
 * @param client where it asks from: guesses are counted
 * @returns what its browser keeps
 * @throws Refusal for a wrong, used or old code
 */
export async function lightScreen(
	context: Unattended,
	code: string,
	client: string
): Promise<string> {
	const key = attemptKey('code', `screen ${client}`);
	await takeTry(context, { key, way: 'code', userId: undefined });
	const token = drawSecret();
	return writeUnattended(context, null, async ({ tx, now, record }) => {
		const [lit] = await tx
			.update(secondScreen)
			.set({ tokenHash: sha256(token) })
			.where(
				and(
					eq(secondScreen.codeHash, sha256(code)),
					isNull(secondScreen.tokenHash),
					isNull(secondScreen.endedAt),
					gt(secondScreen.codeUntil, now)
				)
			)
			.returning({ userId: secondScreen.userId, shows: secondScreen.shows });
		if (!lit)
			throw new Refusal(
				'invalid',
				`This code lights nothing: it is wrong, was used, or is older than ${SCREEN_CODE_MIN} minutes. Ask for another at the bench.`,
				'code'
			);
		await forgiveTries(tx, key);
		record('screen.lit', { of: lit.userId, payload: { about: lit.shows.about } });
		return token;
	});
}

/** What a screen shows; null: it is dark. */
export async function shownOn(
	db: Connection,
	token: string | undefined,
	now: Date
): Promise<ScreenShows | null> {
	if (!token) return null;
	const [row] = await db
		.select()
		.from(secondScreen)
		.where(eq(secondScreen.tokenHash, sha256(token)));
	return row && screenLit(row, now) ? row.shows : null;
}
