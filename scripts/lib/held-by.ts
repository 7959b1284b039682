import { readdirSync, readFileSync } from 'node:fs';
import { childrenOf } from './children.ts';

/** What the processes of an app hold at a moment. */
export interface Held {
	/** Memory of all web processes, MB. */
	webMb: number;
	keeperMb: number;
	descriptors: number;
	/** To the database, of everybody. */
	connections: number;
	databaseMb: number;
}

/**
 * What the web process of a number and its children hold.
 * @param pid of the process that was started
 */
export function heldBy(pid: number): Pick<Held, 'webMb' | 'keeperMb' | 'descriptors'> {
	const all = [{ pid, says: 'serve.mjs' }, ...childrenOf(pid)];
	const sum = (list: typeof all, of: (pid: number) => number) =>
		list.reduce((total, one) => total + of(one.pid), 0);
	const keeper = all.filter(({ says }) => says.includes('keeper.ts'));
	return {
		webMb: sum(
			all.filter((one) => !keeper.includes(one)),
			residentMb
		),
		keeperMb: sum(keeper, residentMb),
		descriptors: sum(all, descriptorsOf)
	};
}

function residentMb(pid: number): number {
	const [, kb] = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8')) ?? [];
	return Number(kb ?? 0) / 1024;
}

const descriptorsOf = (pid: number) => readdirSync(`/proc/${pid}/fd`).length;
