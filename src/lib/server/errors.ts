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
	// PostgreSQL: shutting down, crashed, cannot connect now.
	'57P01',
	'57P02',
	'57P03'
]);

/** Brings whatever was thrown into a fault that can be shown; undefined for a fault of the program itself. */
export function asFault(error: unknown): Fault | undefined {
	if (error instanceof Fault) return error;
	if (error instanceof InputError) return new Fault('invalid', error.message, error.path);
	if (databaseLost(error))
		return new Fault(
			'unavailable',
			'The database does not answer. Nothing was changed; try again in a moment.'
		);
	return undefined;
}

/** What the driver says when a connection ended or could not be had; it gives these no code. */
const LOST_WORDS =
	/Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error/;

/** Whether an error, or one of its causes, is a lost connection. */
function databaseLost(error: unknown): boolean {
	for (let e = error, depth = 0; e instanceof Error && depth < 5; e = e.cause, depth++) {
		const code = (e as { code?: unknown }).code;
		if ((typeof code === 'string' && LOST.has(code)) || LOST_WORDS.test(e.message)) return true;
	}
	return false;
}

/** The constraint that an insert broke, undefined when the error is something else. */
export function brokenConstraint(error: unknown): string | undefined {
	for (let e = error, depth = 0; e instanceof Error && depth < 5; e = e.cause, depth++) {
		const { code, constraint: name } = e as { code?: unknown; constraint?: unknown };
		if (code === '23505' && typeof name === 'string') return name;
	}
	return undefined;
}
