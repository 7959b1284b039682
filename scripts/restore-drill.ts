// npm run restore:drill [-- FILE]: restores the newest backup, or a given one, into a database of its own, proves it,
// says how long it took, and drops it again. Nothing of the site is touched.
import { dataDir } from './lib/paths.mjs';
import { backupFolder, backupsIn } from './lib/backups.mjs';
import { runMain, say, Stop } from './lib/say.mjs';
import { dropDatabase, fillFrom, makeDatabase } from './backup/put.ts';
import { openBackup } from './backup/take.ts';

await runMain(async () => {
	const file = process.argv[2] ?? backupsIn(backupFolder).at(-1);
	if (!file) throw new Stop(`There is no backup in ${backupFolder} yet: npm run backup takes one.`);
	const began = Date.now();
	const url = process.env.GREVAN_OWNER_URL ?? process.env.DATABASE_URL ?? '';
	const backup = await openBackup(file, dataDir, process.env.GREVAN_BACKUP_PASSPHRASE);
	const name = `grevan_drill_${process.pid}_${Date.now()}`;
	try {
		const { rows, tables, check } = await fillFrom(
			backup,
			await makeDatabase(url, name),
			process.env.GREVAN_LOG_KEY
		);
		say(`${file}, taken ${backup.manifest.at}`);
		say(
			`  rows            ${rows.toLocaleString('en-GB')} in ${tables} tables, as the backup says`
		);
		say(
			`  log             ${check.entries.toLocaleString('en-GB')} entries follow from one another`
		);
		say(`  records         ${check.records.toLocaleString('en-GB')} are as they were made whole`);
		say(
			`  signed ends     ${check.anchors ? `${check.anchors}, the last of entry ${check.anchoredTo}` : 'not compared: no key here, or none taken along'}`
		);
		say(`  took            ${((Date.now() - began) / 1000).toFixed(1)} s`);
	} finally {
		await dropDatabase(url, name);
		backup.close();
	}
});
