import { InputError } from '../../../core/verdict.ts';

export type RefusalKind =
	| 'not found'
	| 'forbidden'
	| 'conflict'
	/** Given by one person, sent under the session of another. */
	| 'other person'
	| 'invalid'
	/** Whoever does this shows first that it is them. */
	| 'proof'
	/** More than one request may hold. */
	| 'too much'
	/** Too often, or too many at once: to be tried again. */
	| 'busy'
	| 'unavailable';

/** Why a request is refused, said so that the person knows what to do. Shown as it is. */
export class Refusal extends Error {
	constructor(
		readonly kind: RefusalKind,
		message: string,
		/** The field that it is about. */
		readonly path?: string,
		/** Every field of a form that is refused, the first included; empty where it is about no form. */
		readonly fields: readonly { path: string; message: string }[] = []
	) {
		super(message);
		this.name = 'Refusal';
	}
}

export const STATUS: Record<RefusalKind, number> = {
	'not found': 404,
	forbidden: 403,
	conflict: 409,
	'other person': 409,
	invalid: 422,
	proof: 403,
	'too much': 413,
	busy: 429,
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

/** Brings whatever was thrown into a refusal that can be shown; undefined for a fault of the program itself. */
export function asRefusal(error: unknown): Refusal | undefined {
	if (error instanceof Refusal) return error;
	if (error instanceof InputError) return new Refusal('invalid', error.message, error.path);
	if (databaseLost(error))
		return new Refusal(
			'unavailable',
			'The database does not answer just now. Try again in a moment: what you sent is done once, if at all.'
		);
	if (tooLong(error))
		return new Refusal(
			'unavailable',
			'The database takes too long just now. Nothing was changed; try again in a moment.'
		);
	if (hasCode(error, (code) => code === '25006'))
		return new Refusal(
			'unavailable',
			'The database takes no changes just now: it only reads. Nothing was changed; tell the one who runs the server.'
		);
	if (diskFull(error))
		return new Refusal(
			'unavailable',
			'The disk of the database is full. Nothing was changed, and nothing can be until there is room; reading goes on. Tell the one who runs the server.'
		);
	if (hasCode(error, (code) => UNKEPT.test(code)))
		return new Refusal(
			'invalid',
			'Something in this cannot be kept as it stands. Look at each field.'
		);
	return undefined;
}

/** Whether something was ended because it, or somebody else who held the lock, took too long. */
export const tooLong = (error: unknown): boolean => hasCode(error, (code) => TOO_LONG.has(code));

/** PostgreSQL: no room on the disk, or in a file that may grow no more. */
const diskFull = (error: unknown): boolean =>
	hasCode(error, (code) => code === '53100') ||
	causesOf(error).some(({ message }) =>
		/No space left on device|could not extend file/.test(message)
	);

const hasCode = (error: unknown, is: (code: string) => boolean): boolean =>
	causesOf(error).some(({ code }) => typeof code === 'string' && is(code));

/** PostgreSQL: ended because it took too long, or because somebody else held the lock for too long. */
const TOO_LONG = new Set(['55P03', '57014', '25P03']);

/** PostgreSQL: a value that no column takes, such as a number or a day beyond all bounds, or an id that is none. */
const UNKEPT = /^22/;

/** An error with what a database says of it. */
type DatabaseError = Error & { code?: unknown; table?: unknown; constraint?: unknown };
/** Deeper than any layer wraps. */
const DEEPEST = 5;

/** An error and its causes, the outermost first. */
export function causesOf(error: unknown): DatabaseError[] {
	const causes: DatabaseError[] = [];
	for (let e = error; e instanceof Error && causes.length < DEEPEST; e = e.cause) causes.push(e);
	return causes;
}

/** What the driver says when a connection ended or could not be had; it gives these no code. */
const LOST_WORDS =
	/Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error|Query read timeout/;

/** Whether an error, or one of its causes, is a lost connection. */
function databaseLost(error: unknown): boolean {
	return causesOf(error).some(
		({ code, message }) => (typeof code === 'string' && LOST.has(code)) || LOST_WORDS.test(message)
	);
}

/** The constraint that an insert broke, undefined when the error is something else. */
export function brokenConstraint(error: unknown): string | undefined {
	for (const { code, constraint: name } of causesOf(error))
		if (code === '23505' && typeof name === 'string') return name;
	return undefined;
}

/** Somebody saved in between: nothing of theirs may be written over. */
export const stale = (what: string) =>
	new Refusal(
		'conflict',
		`This ${what} was changed meanwhile. Nothing was written over; load the page again to see the change.`
	);
