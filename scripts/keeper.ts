import { endWithParent } from './lib/parent.mjs';
import { openDatabase } from '../src/lib/server/db/client.ts';
import { openPost, postFrom } from '../src/lib/server/notices/mail.ts';
import { startJobs } from '../src/lib/server/jobs/room.ts';
import { config } from '../src/lib/server/web/config.ts';

/**
 * What runs without a visitor, in a process of its own: nothing that a visitor asks for delays an alarm of the entry
 * board. Ends with the process that started it.
 */
endWithParent();
// One signal ends both; this one leaves its leases to lapse within seconds.
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
	process.on(signal, () => process.exit(0));
openPost(postFrom(config()));
await startJobs(openDatabase(config().DATABASE_URL).db);
