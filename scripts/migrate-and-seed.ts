import { createAuth } from '../src/lib/server/auth.ts';
import { migrateDatabase, openDatabase } from '../src/lib/server/db/client.ts';
import { analyze } from '../src/lib/server/db/queries/seed.ts';
import { isEmpty, seedDemo } from '../src/lib/server/demo/seed.ts';

/** Brings the database of DATABASE_URL to the newest migration; fills it with the demo when it is empty. */
const url = process.env.DATABASE_URL ?? '';
const password = process.env.GREVAN_DEMO_PASSWORD;
const items = Number(process.env.GREVAN_SEED_ITEMS ?? 64);
const rounds = Number(process.env.GREVAN_SEED_ROUNDS ?? 12);

await migrateDatabase(url, 'src/lib/server/db/migrations');
const { db, close } = openDatabase(url, { max: 2 });
try {
	if (password && (await isEmpty(db))) {
		const origin = 'http://localhost';
		const auth = createAuth(db, { secret: process.env.GREVAN_SECRET ?? '', origin });
		await seedDemo(db, auth, { now: new Date(), password, items, rounds });
		await analyze(db);
		console.log('The demo of Osmund Sound Harbour Works is in the database.');
	}
} finally {
	await close();
}
