// npm run backup [-- --to FOLDER] [--keep N]: one file of the whole database at one moment, read back before it counts.
import { parseArgs } from 'node:util';
import { openDatabase } from '../src/lib/server/db/client.ts';
import { loadSite } from '../src/lib/server/kernel/site.ts';
import { noteBackup } from '../src/lib/server/records/backups.ts';
import { backupFolder, KEEP } from './lib/backups.mjs';
import { runMain, say, Stop } from './lib/say.mjs';
import { takeBackup } from './backup/take.ts';

await runMain(async () => {
	const { values } = parseArgs({
		options: { to: { type: 'string' }, keep: { type: 'string' } },
		strict: true
	});
	const keep = Number(values.keep ?? KEEP);
	if (!Number.isInteger(keep) || keep < 1) throw new Stop('--keep takes a whole number from 1.');
	const url = process.env.GREVAN_OWNER_URL ?? process.env.DATABASE_URL ?? '';
	const passphrase = process.env.GREVAN_BACKUP_PASSPHRASE;
	const anchors = process.env.GREVAN_ANCHORS;
	const taken = await takeBackup(url, values.to ?? backupFolder, {
		keep,
		...(passphrase ? { passphrase } : {}),
		...(anchors ? { anchors } : {})
	});
	const { db, close } = openDatabase(url, { max: 1 });
	try {
		const context = { db, now: () => new Date(), site: await loadSite(db) };
		await noteBackup(context, {
			file: taken.file,
			bytes: taken.bytes,
			sha256: taken.sha256,
			encrypted: taken.encrypted,
			seconds: taken.seconds,
			entries: taken.manifest.log.seq
		});
	} finally {
		await close();
	}
	const rows = Object.values(taken.manifest.tables).reduce((sum, n) => sum + n, 0);
	say(
		`${taken.file}: ${(taken.bytes / 1e6).toFixed(1)} MB, ${rows.toLocaleString('en-GB')} rows up to entry ${taken.manifest.log.seq} of the log, read back, ${taken.encrypted ? 'encrypted' : 'not encrypted'}, ${taken.seconds.toFixed(1)} s.`
	);
});
