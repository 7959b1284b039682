// npm run archive -- FILE: the whole site as one file that others can read.
import { statSync } from 'node:fs';
import { resolve } from 'node:path';
import { writeArchive } from './archive/write.ts';
import { runMain, say, Stop } from './lib/say.mjs';

await runMain(async () => {
	const file = process.argv[2];
	if (!file) throw new Stop('npm run archive -- FILE');
	// The app that asked for it is told how far it is.
	const told = (done: number, total: number) => process.send?.({ done, total });
	const url = process.env.GREVAN_OWNER_URL ?? process.env.DATABASE_URL ?? '';
	const began = Date.now();
	const manifest = await writeArchive(url, resolve(file), told);
	const rows = Object.values(manifest.tables).reduce((sum, table) => sum + table.rows, 0);
	say(
		`${file}: ${(statSync(file).size / 1e6).toFixed(1)} MB, ${rows.toLocaleString('en-GB')} rows of ${Object.keys(manifest.tables).length} tables, ${Object.keys(manifest.attachments).length} attachments, up to entry ${manifest.log.seq} of the log, ${((Date.now() - began) / 1000).toFixed(1)} s.`
	);
});
