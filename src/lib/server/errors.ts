import { InputError } from '../../core/verdict.ts';

export type FaultKind = 'not found' | 'forbidden' | 'conflict' | 'invalid' | 'unavailable';

/** A fault of a request, said so that the person knows what to do. Shown as it is. */
export class Fault extends Error {
	constructor(
		readonly kind: FaultKind,
		message: string,
		/** The field at fault. */
		readonly path?: string
	) {
		super(message);
		this.name = 'Fault';
	}
}

export const STATUS: Record<FaultKind, number> = {
	'not found': 404,
	forbidden: 403,
	conflict: 409,
	invalid: 422,
	unavailable: 503
};

const LOST = new Set([
	'ECONNREFUSED',
	'ECONNRESET',
	'EPIPE',
	'CONNECT_TIMEOUT',
	'CONNECTION_CLOSED',
	'CONNECTION_ENDED',
	'CONNECTION_DESTROYED',
	// PostgreSQL: shutting down, crashed, cannot connect now.
	'57P01',
	'57P02',
	'57P03'
]);

/** Brings whatever was thrown into a fault that can be shown; undefined for a fault of the program itself. */
export function asFault(error: unknown): Fault | undefined {
	if (error instanceof Fault) return error;
	if (error instanceof InputError) return new Fault('invalid', error.message, error.path);
	if (databaseCode(error, LOST))
		return new Fault(
			'unavailable',
			'The database does not answer. Nothing was changed; try again in a moment.'
		);
	return undefined;
}

/** The SQLSTATE or network code of an error, looked for along its causes. */
export function databaseCode(error: unknown, among: ReadonlySet<string>): string | undefined {
	for (let e = error, depth = 0; e instanceof Error && depth < 5; e = e.cause, depth++) {
		const code = (e as { code?: unknown }).code;
		if (typeof code === 'string' && among.has(code)) return code;
	}
	return undefined;
}

/** The constraint that an insert broke, undefined when the error is something else. */
export function brokenConstraint(error: unknown): string | undefined {
	for (let e = error, depth = 0; e instanceof Error && depth < 5; e = e.cause, depth++) {
		const { code, constraint_name: name } = e as { code?: unknown; constraint_name?: unknown };
		if (code === '23505' && typeof name === 'string') return name;
	}
	return undefined;
}
