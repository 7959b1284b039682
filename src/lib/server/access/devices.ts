import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { Connection } from '../db/client.ts';
import { device } from '../db/schema/index.ts';
import { sha256 } from '../kernel/sha256.ts';
import { drawSecret } from './draw-secret.ts';

const DAY_MS = 86_400_000;
/** A password that was given on a device lets a PIN be enough there for so long. Site default. */
const TRUSTED_DAYS = 30;

export const DEVICE_COOKIE = 'grevan-device';
export const DEVICE_COOKIE_S = (365 * DAY_MS) / 1000;

export type Device = typeof device.$inferSelect;

/** The device that a browser says it is; undefined where nobody went in on it with a password yet. */
export async function deviceOf(
	db: Connection,
	key: string | undefined
): Promise<Device | undefined> {
	if (!key) return undefined;
	const [row] = await db
		.select()
		.from(device)
		.where(eq(device.hash, sha256(key)));
	return row;
}

/** Whether a card and a PIN are enough on a device. */
export const takesPins = (found: Device | undefined, now: Date): found is Device =>
	found !== undefined && found.shared && found.trustedUntil > now;

/**
 * Notes that somebody went in on a device with a password.
 * @param shared whether it is a bench that several share; undefined leaves it as it is
 * @returns the device, and what its browser is to keep
 */
export async function keepDevice(
	tx: Connection,
	given: { key: string | undefined; shared?: boolean; name?: string },
	now: Date
): Promise<{ id: string; shared: boolean; key: string }> {
	const trustedUntil = new Date(now.getTime() + TRUSTED_DAYS * DAY_MS);
	const known = await deviceOf(tx, given.key);
	if (known && given.key) {
		const shared = given.shared ?? known.shared;
		await tx
			.update(device)
			.set({ trustedUntil, shared, name: given.name ?? known.name })
			.where(eq(device.id, known.id));
		return { id: known.id, shared, key: given.key };
	}
	const made = {
		id: randomUUID(),
		shared: given.shared ?? false,
		key: drawSecret()
	};
	await tx.insert(device).values({
		id: made.id,
		hash: sha256(made.key),
		shared: made.shared,
		name: given.name ?? '',
		trustedUntil
	});
	return made;
}
