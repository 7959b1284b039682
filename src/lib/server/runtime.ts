import { config } from './config.ts';
import { createAuth, type Auth } from './auth.ts';
import { openDatabase, type Database } from './db/client.ts';

interface Runtime {
	db: Database;
	auth: Auth;
	origin: string;
	close: () => Promise<void>;
}

let runtime: Runtime | undefined;

/** The one database pool and account service of the process, opened at the first request. */
export function getRuntime(origin: string): Runtime {
	if (runtime) return runtime;
	const { DATABASE_URL, GREVAN_SECRET, ORIGIN } = config();
	const { db, close } = openDatabase(DATABASE_URL);
	const address = ORIGIN ?? origin;
	runtime = {
		db,
		auth: createAuth(db, { secret: GREVAN_SECRET, origin: address }),
		origin: address,
		close
	};
	return runtime;
}
