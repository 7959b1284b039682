// npm run verify -- "ENTRY, HASH": whether what stands on a paper is so in the record.
import { verifyPaper } from '../src/lib/server/records/verify.ts';
import { openDatabase } from '../src/lib/server/db/client.ts';
import { Refusal } from '../src/lib/server/kernel/refusal.ts';
import { runMain, say, Stop } from './lib/say.mjs';

await runMain(async () => {
	const paper = process.argv.slice(2).join(' ');
	if (!paper) throw new Stop('npm run verify -- "ENTRY, HASH", as it stands on the paper');
	const { db, close } = openDatabase(process.env.DATABASE_URL ?? '', { max: 1 });
	try {
		const found = await verifyPaper({ db }, paper);
		if (found.length === 0) throw new Stop('No entry of the log has that number or hash.');
		for (const { seq, at, says, hash, faults } of found) {
			say(`Entry ${seq}, ${at.toISOString()}: ${says}.`);
			say(`  ${hash}`);
			for (const fault of faults) say(`  ${fault}`);
			say(faults.length ? '  It does not stand.' : '  It stands as it was written.');
			if (faults.length) process.exitCode = 1;
		}
	} catch (cause) {
		if (cause instanceof Refusal) throw new Stop(cause.message);
		throw cause;
	} finally {
		await close();
	}
});
