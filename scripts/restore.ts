// npm run restore -- FILE: fills a fresh database from a backup, proves it, and only then puts it in the place of the
// one that is there, which is kept under another name.
import { copyFileSync, existsSync, mkdirSync, renameSync } from 'node:fs';
import { dirname } from 'node:path';
import { grantApplication } from '../src/lib/server/db/grants.ts';
import { migrateDatabase, openDatabase } from '../src/lib/server/db/client.ts';
import { loadSite } from '../src/lib/server/kernel/site.ts';
import { noteRestore } from '../src/lib/server/records/backups.ts';
import { takeLock } from './lib/lock.mjs';
import { dataDir } from './lib/paths.mjs';
import { runMain, say, Stop } from './lib/say.mjs';
import { fillFrom, intoFresh, swapDatabases } from './backup/put.ts';
import { openBackup } from './backup/take.ts';

await runMain(async () => {
	const file = process.argv[2];
	if (!file) throw new Stop('npm run restore -- FILE');
	// Whoever serves from the database ends first.
	const lock = await takeLock('start');
	const began = Date.now();
	const appUrl = process.env.DATABASE_URL ?? '';
	const url = process.env.GREVAN_OWNER_URL ?? appUrl;
	const stamp = new Date().toISOString().slice(0, 19).replaceAll(/[-:T]/g, '');
	const fresh = `grevan_restored_${stamp}`;
	try {
		const backup = await openBackup(file, dataDir, process.env.GREVAN_BACKUP_PASSPHRASE);
		try {
			const proven = await intoFresh(url, fresh, async (freshUrl) => {
				const found = await fillFrom(backup, freshUrl, process.env.GREVAN_LOG_KEY);
				await migrateDatabase(freshUrl, 'src/lib/server/db/migrations');
				return found;
			});
			const kept = await swapDatabases(url, fresh, stamp);
			if (url !== appUrl) await grantApplication(url, appUrl);
			putAnchors(backup.anchors, stamp);
			const { db, close } = openDatabase(url, { max: 1 });
			try {
				await noteRestore(
					{ db, now: () => new Date(), site: await loadSite(db) },
					{ takenAt: backup.manifest.at, entries: backup.manifest.log.seq }
				);
			} finally {
				await close();
			}
			say(
				`Restored from ${backup.manifest.at}: ${proven.rows.toLocaleString('en-GB')} rows of ${proven.tables} tables, ${proven.check.entries.toLocaleString('en-GB')} entries of the log proven, ${((Date.now() - began) / 1000).toFixed(1)} s.`
			);
			say(
				`The database before is kept as ${kept}. What was written after the backup is only there.`
			);
		} finally {
			backup.close();
		}
	} finally {
		await lock.release();
	}
});

/** The signed ends of the log that belong to what was restored; those of the database before are kept beside. */
function putAnchors(anchors: string | null, stamp: string) {
	const place = process.env.GREVAN_ANCHORS;
	if (!place) return;
	mkdirSync(dirname(place), { recursive: true });
	if (existsSync(place)) renameSync(place, `${place}.before-${stamp}`);
	if (anchors) copyFileSync(anchors, place);
}
