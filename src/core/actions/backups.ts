import { z } from 'zod';
import { action } from './action.ts';

/** Backups, and what was put back from one. */
export const BACKUP_ACTIONS = {
	'backup.taken': action({
		subject: 'backup',
		payload: z.object({
			file: z.string(),
			sha256: z.string(),
			entries: z.number(),
			encrypted: z.boolean()
		}),
		says: (p) => `Backup taken and read back, up to entry ${p.entries}: ${p.file}`
	}),
	'backup.restored': action({
		subject: 'site',
		payload: z.object({ takenAt: z.string(), entries: z.number() }),
		says: (p) =>
			`Database put back to a backup that ended with entry ${p.entries}: what was written after it is not here`
	})
};
