import { openDatabase } from '../src/lib/server/db/client.ts';
import { verifyChain } from '../src/lib/server/kernel/chain.ts';

const { db, close } = openDatabase(process.env.DATABASE_URL ?? '', { max: 1 });
try {
	const check = await verifyChain(db);
	if (check.broken) {
		console.log(`The audit log is broken at entry ${check.broken.seq}: ${check.broken.text}.`);
		console.log(`${check.entries} entries before it are whole.`);
		process.exitCode = 1;
	} else {
		console.log(`The audit log is whole: ${check.entries} entries.`);
		console.log(`Its end: ${check.head}`);
	}
} finally {
	await close();
}
