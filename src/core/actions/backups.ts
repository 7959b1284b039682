import { z } from 'zod';
import { readable } from '../plan/calendar.ts';
import { RETENTION_KINDS } from '../records/retention.ts';
import { action } from './action.ts';

const months = (n: number | null) => (n === null ? 'for ever' : `${n} months`);

/** Backups, what was put back from one, and what of the record went out of the house. */
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
	}),
	'retention.set': action({
		subject: 'site',
		payload: z.object({
			kind: z.enum(RETENTION_KINDS),
			keepMonths: z.number().nullable(),
			before: z.number().nullable()
		}),
		says: (p) => `Kept from now on: ${p.kind}, ${months(p.keepMonths)}; before, ${months(p.before)}`
	}),
	'retention.dropped': action({
		subject: 'site',
		payload: z.object({ kind: z.enum(RETENTION_KINDS), rows: z.number(), before: z.iso.date() }),
		says: (p) => `Let go of: ${p.kind} from before ${readable(p.before)}, ${p.rows} rows`,
		signs: 'let go of what is old'
	}),
	'site.archived': action({
		subject: 'site',
		payload: z.object({ bytes: z.number(), sha256: z.string() }),
		says: (p) => `The whole site taken out as an archive, ${(p.bytes / 1e6).toFixed(1)} MB`,
		signs: 'take the whole site out'
	}),
	'records.bundled': action({
		subject: 'site',
		payload: z.object({
			from: z.iso.date(),
			to: z.iso.date(),
			files: z.number(),
			/** Of its manifest. */
			sha256: z.string()
		}),
		says: (p) =>
			`Bundle of the record handed out, ${readable(p.from)} to ${readable(p.to)}: ${p.files} files`
	})
};
