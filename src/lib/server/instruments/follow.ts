import type { Database } from '../db/client.ts';
import { holdLease } from '../db/queries/leases.ts';
import { InstrumentError } from './line-client.ts';

const POLL_MS = 200;
/** After so long without a word from the process that listens another takes over. */
const LEASE_MS = 4000;
/** How long an instrument may be away before what it does is closed with what came. */
const PATIENCE_MS = 15_000;

/** Something that an instrument does, whose readings are kept as they come. */
export interface Followed<R> {
	/** One process listens at a time, under this name. */
	lease: string;
	/** Readings that are kept already. */
	kept: number;
	instrument: {
		state(): Promise<'idle' | 'running' | 'done'>;
		/** Readings from an index on, so that a listener that was away misses none. */
		fetch(from: number): Promise<R[]>;
		close(): void;
	};
	/** Keeps readings, the first of which has this index. */
	keep(first: number, readings: R[]): Promise<void>;
	/** It was ended by somebody else meanwhile. */
	over?(): Promise<boolean>;
	/** The instrument has done what it was told. @returns false where it was told to go on */
	done(): Promise<boolean>;
	/** The instrument is gone, or knows nothing of it any more. */
	lost(): Promise<void>;
}

/** Listens until the instrument is done or gone, and keeps each part before it asks for the next. */
export async function follow<R>(db: Database, followed: Followed<R>): Promise<void> {
	const { instrument, lease } = followed;
	let { kept } = followed;
	let heardAt = Date.now();
	let leaseUntil = 0;
	try {
		for (;;) {
			if (Date.now() > leaseUntil - LEASE_MS / 2) {
				if (!(await holdLease(db, lease, LEASE_MS))) return;
				leaseUntil = Date.now() + LEASE_MS;
				if (await followed.over?.()) return;
			}
			try {
				const state = await instrument.state();
				const fresh = state === 'idle' ? [] : await instrument.fetch(kept);
				// One that was started anew knows nothing of this: as good as gone.
				if (state !== 'idle') heardAt = Date.now();
				if (fresh.length) {
					await followed.keep(kept, fresh);
					kept += fresh.length;
				} else if (state === 'done' && (await followed.done())) return;
			} catch (error) {
				if (!(error instanceof InstrumentError)) throw error;
			}
			if (Date.now() - heardAt > PATIENCE_MS) return await followed.lost();
			await new Promise((resolve) => setTimeout(resolve, POLL_MS));
		}
	} finally {
		instrument.close();
	}
}
