import pino from 'pino';

/**
 * Structured log without personal data: no names, addresses, notes or bodies, only what happened, to which kind
 * of thing, how long it took.
 */
export const log = pino({
	level: process.env.LOG_LEVEL ?? 'info',
	base: undefined,
	redact: ['headers', 'body', 'email', 'name']
});
