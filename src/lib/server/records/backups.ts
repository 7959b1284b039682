import { desc } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { basename } from 'node:path';
import type { Connection } from '../db/client.ts';
import { backup } from '../db/schema/index.ts';
import type { Unattended } from '../kernel/context.ts';
import { writeUnattended } from '../kernel/write.ts';

export interface TakenBackup {
	file: string;
	bytes: number;
	sha256: string;
	encrypted: boolean;
	seconds: number;
	/** Last entry of the log that is in it. */
	entries: number;
}

/** Notes a backup that was taken and read back. */
export function noteBackup(context: Unattended, taken: TakenBackup): Promise<void> {
	const id = randomUUID();
	const file = basename(taken.file);
	return writeUnattended(context, null, async (at) => {
		await at.tx.insert(backup).values({ ...taken, id, file, takenAt: at.now });
		at.record('backup.taken', {
			of: id,
			payload: { file, sha256: taken.sha256, entries: taken.entries, encrypted: taken.encrypted }
		});
	});
}

/** Notes in the log that goes on that the database was put back to a backup. */
export function noteRestore(
	context: Unattended,
	from: { takenAt: string; entries: number }
): Promise<void> {
	return writeUnattended(context, null, (at) => {
		at.record('backup.restored', { of: '1', payload: from });
		return Promise.resolve();
	});
}

/** The newest backup that is known of; null where none was taken. */
export async function lastBackup(db: Connection) {
	const [row] = await db.select().from(backup).orderBy(desc(backup.takenAt)).limit(1);
	return row ?? null;
}
