import { createHash } from 'node:crypto';

/** SHA-256 of a text as UTF-8, or of bytes, in hexadecimal. */
export const sha256 = (content: string | Uint8Array): string =>
	createHash('sha256').update(content).digest('hex');
