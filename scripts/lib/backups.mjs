import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { dataDir } from './paths.mjs';

/** Where backups are put; another disk or machine is better. */
export const backupFolder = process.env.GREVAN_BACKUP_DIR ?? join(dataDir, 'backups');
/** How many are kept. Site default. */
export const KEEP = Number(process.env.GREVAN_BACKUP_KEEP ?? 14);

/** Names of backups sort by their time. */
const NAME = /^grevan-\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2}Z\.backup$/;
/** @param {Date} at */
export const nameAt = (at) =>
	`grevan-${at.toISOString().slice(0, 19).replaceAll(':', '-')}Z.backup`;

/**
 * Backups in a folder, the oldest first.
 * @param {string} folder
 */
export const backupsIn = (folder) =>
	existsSync(folder)
		? readdirSync(folder)
				.filter((name) => NAME.test(name))
				.sort()
				.map((name) => join(folder, name))
		: [];

/** When the newest backup was written; undefined where there is none. */
export function newestBackup() {
	const file = backupsIn(backupFolder).at(-1);
	return file ? statSync(file).mtime : undefined;
}
