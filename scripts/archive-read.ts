// npm run archive:read -- FILE: reads an archive into a fresh database, proves it, and puts it in the place of the one
// that is there, which has to be empty.
import { grantApplication } from '../src/lib/server/db/grants.ts';
import { openArchive, readArchive } from './archive/read.ts';
import { dropDatabase, intoFresh, swapDatabases } from './backup/put.ts';
import { connected } from './backup/postgres.ts';
import { takeLock } from './lib/lock.mjs';
import { dataDir } from './lib/paths.mjs';
import { runMain, say, Stop } from './lib/say.mjs';

/** Whether nobody has an account there, or nothing was ever set up. */
const isEmpty = (url: string) =>
	connected(url, async (client) => {
		const there = await client.query<{ there: boolean }>(
			`select to_regclass('public.user') is not null as there`
		);
		if (!there.rows[0]?.there) return true;
		const { rows } = await client.query<{ n: string }>('select count(*) as n from "user"');
		return Number(rows[0]?.n) === 0;
	});

await runMain(async () => {
	const file = process.argv[2];
	if (!file) throw new Stop('npm run archive:read -- FILE');
	const lock = await takeLock('start');
	const began = Date.now();
	const appUrl = process.env.DATABASE_URL ?? '';
	const url = process.env.GREVAN_OWNER_URL ?? appUrl;
	const stamp = new Date().toISOString().slice(0, 19).replaceAll(/[-:T]/g, '');
	const fresh = `grevan_archive_${stamp}`;
	try {
		if (!(await isEmpty(url)))
			throw new Stop('This site is not empty: an archive is read into an empty one only.');
		const archive = await openArchive(file, dataDir);
		try {
			const read = await intoFresh(url, fresh, (freshUrl) => readArchive(archive, freshUrl));
			const kept = await swapDatabases(url, fresh, stamp);
			await dropDatabase(url, kept);
			if (url !== appUrl) await grantApplication(url, appUrl);
			say(
				`${archive.manifest.site}, as it was on ${archive.manifest.at}: ${read.rows.toLocaleString('en-GB')} rows of ${read.tables} tables, ${read.check.entries.toLocaleString('en-GB')} entries of the log and ${read.check.records.toLocaleString('en-GB')} records proven, ${((Date.now() - began) / 1000).toFixed(1)} s.`
			);
			say(
				'Passwords, PINs and keys are not in an archive: npm run user:add with the address of an account gives it a new password.'
			);
		} finally {
			archive.close();
		}
	} finally {
		await lock.release();
	}
});
