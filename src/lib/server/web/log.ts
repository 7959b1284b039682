import pino from 'pino';
import { causesOf } from '../kernel/refusal.ts';

/**
 * Structured log without personal data: no names, addresses, notes or bodies, only what happened, to which kind
 * of thing, how long it took.
 */
export const log = pino({
	level: process.env.LOG_LEVEL ?? 'info',
	base: undefined,
	redact: ['headers', 'body', 'email', 'name']
});

/**
 * What of an error may stand in a log: its kind, the code of PostgreSQL with the table and constraint, where it
 * happened. Never its message: that of a query holds its values.
 */
export function logged(error: unknown) {
	const causes = causesOf(error);
	const said = causes.find(({ code }) => typeof code === 'string');
	return {
		kind: causes.map((cause) => cause.name).join(' < ') || typeof error,
		...(said?.code ? { code: said.code } : {}),
		...(said?.table ? { table: said.table } : {}),
		...(said?.constraint ? { constraint: said.constraint } : {}),
		at: (causes.at(-1)?.stack ?? '')
			.split('\n')
			.filter((line) => /^\s+at /.test(line))
			.slice(0, 12)
			.map((line) => line.trim())
	};
}
