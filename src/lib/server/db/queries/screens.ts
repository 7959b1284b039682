import { and, eq, isNull, lt, or } from 'drizzle-orm';
import type { ScreenShows } from '../../../../core/access/screen.ts';
import type { Connection } from '../client.ts';
import { secondScreen } from '../schema/index.ts';

/** Takes away what shows nothing any more. */
export const sweepScreens = (db: Connection, now: Date) =>
	db
		.delete(secondScreen)
		.where(
			or(
				lt(secondScreen.until, now),
				and(isNull(secondScreen.tokenHash), lt(secondScreen.codeUntil, now))
			)
		);

/** Shows something else on a screen; nothing of the record. @returns it while it is still theirs */
export async function showOn(
	db: Connection,
	{ id, userId }: { id: string; userId: string },
	shows: ScreenShows
): Promise<{ tokenHash: string | null } | undefined> {
	const [changed] = await db
		.update(secondScreen)
		.set({ shows })
		.where(
			and(eq(secondScreen.id, id), eq(secondScreen.userId, userId), isNull(secondScreen.endedAt))
		)
		.returning({ tokenHash: secondScreen.tokenHash });
	return changed;
}

/** A screen goes dark. */
export const endScreen = (
	db: Connection,
	{ id, userId, now }: { id: string; userId: string; now: Date }
) =>
	db
		.update(secondScreen)
		.set({ endedAt: now })
		.where(
			and(eq(secondScreen.id, id), eq(secondScreen.userId, userId), isNull(secondScreen.endedAt))
		);
