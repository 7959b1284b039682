import { statfs } from 'node:fs/promises';
import type { Connection } from '../db/client.ts';
import { probeDatabase } from '../db/queries/probe.ts';
import { asRefusal } from '../kernel/refusal.ts';

/** What a balancer or a watch is told of this process. */
export interface Readiness {
	/** It serves everything, writing too. */
	ready: boolean;
	writable: boolean;
	/** Room on the disk of the database, MB; null where it is on a machine that this process does not see. */
	diskFreeMb: number | null;
	/** Databases that follow this one. */
	followers: number;
	/** What is wrong, or soon will be. */
	says: string[];
}

/** Less room than this is said: the log of changes alone takes 16 MB at a time. Site default. */
const LOW_MB = 500;

/**
 * Whether this process can serve, by a write that is done and not by hope.
 * @param disk folder of the database, where it is on this machine
 */
export async function readiness(db: Connection, disk: string | undefined): Promise<Readiness> {
	const diskFreeMb = disk ? await freeMb(disk) : null;
	const low =
		diskFreeMb !== null && diskFreeMb < LOW_MB
			? [`The disk of the database has ${diskFreeMb} MB left.`]
			: [];
	try {
		const { writable, follows, followers } = await probeDatabase(db);
		const says = writable
			? low
			: [follows ? 'The database follows another one and takes nothing.' : 'Nothing was written.'];
		return { ready: writable, writable, diskFreeMb, followers, says };
	} catch (error) {
		const said = asRefusal(error)?.message ?? 'The database refused a write.';
		return { ready: false, writable: false, diskFreeMb, followers: 0, says: [said, ...low] };
	}
}

async function freeMb(folder: string): Promise<number | null> {
	try {
		const { bavail, bsize } = await statfs(folder);
		return Math.floor((bavail * bsize) / 1e6);
	} catch {
		return null;
	}
}
