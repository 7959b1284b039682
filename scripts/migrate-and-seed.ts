import { grantApplication } from '../src/lib/server/db/grants.ts';
import { migrateDatabase, openDatabase } from '../src/lib/server/db/client.ts';
import { tieSecret } from '../src/lib/server/access/installation.ts';
import { gatherEntryCounts } from '../src/lib/server/db/queries/history.ts';
import { analyze } from '../src/lib/server/db/queries/seed.ts';
import { gatherStock } from '../src/lib/server/db/queries/stock.ts';
import { lackDues } from '../src/lib/server/db/queries/states.ts';
import { isEmpty, seedDemo } from '../src/lib/server/demo/seed.ts';
import { Refusal } from '../src/lib/server/kernel/refusal.ts';
import { drawSetUpCode } from '../src/lib/server/site/set-up.ts';
import { loadSite } from '../src/lib/server/kernel/site.ts';
import { rebuildAll } from '../src/lib/server/readiness/rebuild-all.ts';
import { SAID } from './lib/say.mjs';
import { createAuth } from '../src/lib/server/web/auth.ts';

/** Brings the database to the newest migration; fills it with the demo when it is empty. */
const appUrl = process.env.DATABASE_URL ?? '';
/** The owner migrates and brings the demo in; the application works with less. */
const url = process.env.GREVAN_OWNER_URL ?? appUrl;
const password = process.env.GREVAN_DEMO_PASSWORD;
const items = Number(process.env.GREVAN_SEED_ITEMS ?? 64);
const rounds = Number(process.env.GREVAN_SEED_ROUNDS ?? 12);

await migrateDatabase(url, 'src/lib/server/db/migrations');
if (url !== appUrl) await grantApplication(url, appUrl);
else
	console.log(
		'The application owns its database: see the README on GREVAN_OWNER_URL for a record that proves itself.'
	);
const { db, close } = openDatabase(url, { max: 2, unhurried: true });
try {
	if (password && (await isEmpty(db))) {
		const origin = 'http://localhost';
		const auth = createAuth(db, { secret: process.env.GREVAN_SECRET ?? '', origin });
		await seedDemo(db, auth, { now: new Date(), password, items, rounds });
		await gatherStock(db);
		await gatherEntryCounts(db, new Date(0));
		await analyze(db);
		console.log('The demo of Osmund Sound Harbour Works is in the database.');
	}
	const said = await tieSecret(
		{ db, now: () => new Date(), site: await loadSite(db) },
		process.env.GREVAN_SECRET ?? '',
		process.env.GREVAN_NEW_SECRET === '1'
	);
	if (said) console.log(said);
	const code = await drawSetUpCode(db);
	if (code)
		console.log(
			`This site has no admin yet. Open the address below and begin the set-up with the one-time code ${code}`
		);
	// A database from before every due was kept.
	if (await lackDues(db)) await rebuildAll({ db, now: () => new Date(), site: await loadSite(db) });
} catch (error) {
	if (!(error instanceof Refusal)) throw error;
	console.log(error.message);
	process.exitCode = SAID;
} finally {
	await close();
}
