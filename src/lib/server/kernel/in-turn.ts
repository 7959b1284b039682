import { setTimeout as pause } from 'node:timers/promises';
import type { Connection } from '../db/client.ts';
import { dropLease, holdLease } from '../db/queries/leases.ts';
import { Refusal } from './refusal.ts';

/** What a retry is told while the first try goes on. */
export const stillBeingDone = () =>
	new Refusal(
		'busy',
		'This was sent before and is still being done. Wait a moment, then look: it is done once.'
	);

/** A process that is gone holds a request back for so long at most. */
const LEASE_MS = 20_000;
const LOOK_MS = 200;
/** Requests that this process is at. */
const underWay = new Map<string, Promise<unknown>>();

/**
 * Does something for a request while nobody else does it for the same one, in this process or another: a retry that
 * overtakes its first try waits for what becomes of that.
 * @throws Refusal where the first takes too long
 */
export async function inTurn<T>(db: Connection, id: string, work: () => Promise<T>): Promise<T> {
	const first = underWay.get(id);
	const turn = (async () => {
		// Whatever becomes of it, the retry looks for itself.
		await first?.catch(() => undefined);
		await alone(db, id);
		try {
			return await work();
		} finally {
			await dropLease(db, nameOf(id)).catch(() => undefined);
		}
	})();
	underWay.set(id, turn);
	try {
		return await turn;
	} finally {
		if (underWay.get(id) === turn) underWay.delete(id);
	}
}

const nameOf = (id: string): string => `request:${id}`;

async function alone(db: Connection, id: string): Promise<void> {
	for (let waited = 0; !(await holdLease(db, nameOf(id), LEASE_MS)); waited += LOOK_MS) {
		if (waited > LEASE_MS) throw stillBeingDone();
		await pause(LOOK_MS);
	}
}
