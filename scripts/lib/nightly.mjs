import { bin, root } from './paths.mjs';
import { attempt } from './process.mjs';
import { say } from './say.mjs';

/** How often it is asked whether one is due. */
const LOOK_MS = 5 * 60_000;

/**
 * The last moment at which a backup was due: today at the hour, or yesterday before it.
 * @param {Date} now
 * @param {number} hour of the clock of this machine
 */
export function lastDue(now, hour) {
	const due = new Date(now);
	due.setHours(hour, 0, 0, 0);
	if (due > now) due.setDate(due.getDate() - 1);
	return due;
}

/**
 * The hour at which a backup is taken; undefined where none is wanted.
 * @param {string | undefined} text GREVAN_BACKUP_HOUR
 */
export function backupHour(text = '2') {
	if (text === 'off') return undefined;
	const hour = Number(text);
	return Number.isInteger(hour) && hour >= 0 && hour < 24 ? hour : 2;
}

/**
 * Takes a backup each night, also one that was missed while nothing ran; tells where it could not.
 * @param {Record<string, string | undefined>} env of the web process, with the owner's address
 * @param {{ hour: number, newest: () => Date | undefined, now?: () => Date, take?: () => Promise<{ code: number, output: string }> }} options
 * @returns {() => void} ends it
 */
export function backUpNightly(
	env,
	{ hour, newest, now = () => new Date(), take = () => script(env) }
) {
	let busy = false;
	const look = async () => {
		const last = newest();
		if (busy || (last && last >= lastDue(now(), hour))) return;
		busy = true;
		try {
			const { code, output } = await take();
			if (code !== 0) say(`The nightly backup was not taken: ${output.trim().slice(-500)}`);
		} finally {
			busy = false;
		}
	};
	const timer = setInterval(() => void look(), LOOK_MS);
	timer.unref();
	return () => clearInterval(timer);
}

/** @param {Record<string, string | undefined>} env */
const script = (env) =>
	attempt(bin('tsx'), ['scripts/backup.ts'], { cwd: root, env: { ...process.env, ...env } });
