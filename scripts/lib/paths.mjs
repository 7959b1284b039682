import { createHash } from 'node:crypto';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Root folder of the project. */
export const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))));
/** Everything that a run leaves behind: database, secrets, locks. Ignored by git. */
export const dataDir = process.env.GREVAN_DATA_DIR ?? join(root, '.data');
/** Tells this checkout from others on the machine. */
export const checkoutId = createHash('sha256').update(dataDir).digest('hex').slice(0, 10);
/** A program that an installed package brings. */
export const bin = (/** @type {string} */ name) => join(root, 'node_modules', '.bin', name);
