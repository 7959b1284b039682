import { type Database, openDatabase } from '../db/client.ts';
import { type Auth, createAuth } from './auth.ts';
import { config } from './config.ts';
import { listenForEnds } from './visits.ts';

interface Runtime {
	db: Database;
	auth: Auth;
	origin: string;
}

let runtime: Runtime | undefined;
let opened: Database | undefined;

/** The one database pool of the process, opened at its first use. */
export const database = (): Database => (opened ??= openDatabase(config().DATABASE_URL).db);

/** The database and the account service of the process, made at the first request. */
export function getRuntime(origin: string): Runtime {
	if (runtime) return runtime;
	const { GREVAN_SECRET, ORIGIN, DATABASE_URL } = config();
	const db = database();
	const address = ORIGIN ?? origin;
	runtime = {
		db,
		auth: createAuth(db, { secret: GREVAN_SECRET, origin: address }),
		origin: address
	};
	listenForEnds(DATABASE_URL);
	return runtime;
}
