import { readAnchors } from '../src/lib/server/kernel/anchors.ts';
import { openDatabase } from '../src/lib/server/db/client.ts';
import { verifyChain } from '../src/lib/server/kernel/chain.ts';

const { GREVAN_LOG_KEY: key, GREVAN_ANCHORS: file } = process.env;
const signed = key && file ? await readAnchors({ key, file }) : undefined;
const { db, close } = openDatabase(process.env.DATABASE_URL ?? '', { max: 1 });
try {
	const check = await verifyChain(db, { signed });
	if (check.broken) {
		console.log(`The record is not as it was. ${check.faults.length} faults were found:`);
		for (const { where, text } of check.faults) console.log(`  ${where}: ${text}.`);
		process.exitCode = 1;
	} else console.log('The record is whole.');
	console.log(`Entries of the log       ${check.entries}`);
	console.log(`Its end                  ${check.head}`);
	console.log(`Records compared         ${check.records}`);
	if (check.unhashed) console.log(`From before hashes       ${check.unhashed}`);
	console.log(
		signed
			? `Signed ends compared     ${check.anchors}, the last of them entry ${check.anchoredTo}`
			: 'Signed ends              none are kept: GREVAN_LOG_KEY and GREVAN_ANCHORS say where'
	);
} finally {
	await close();
}
