import { readdirSync, readFileSync } from 'node:fs';

/** Children of a process, with what they are. */
export function childrenOf(parent: number): { pid: number; says: string }[] {
	return readdirSync('/proc').flatMap((entry) => {
		if (!/^\d+$/.test(entry)) return [];
		try {
			const stat = readFileSync(`/proc/${entry}/stat`, 'utf8');
			if (Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1]) !== parent) return [];
			const says = readFileSync(`/proc/${entry}/cmdline`, 'utf8').replaceAll('\0', ' ');
			return [{ pid: Number(entry), says }];
		} catch {
			return [];
		}
	});
}
