import { randomBytes } from 'node:crypto';

/** A secret for a link, a device or a key, of 192 bits; only its hash is kept. */
export const drawSecret = (): string => randomBytes(24).toString('base64url');
