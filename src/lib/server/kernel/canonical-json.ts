import { sha256 } from './sha256.ts';

/** Keys that an object keeps in the order of their numbers, whatever order they were set in. */
const NUMBER = /^(?:0|[1-9]\d*)$/;

/**
 * JSON with sorted keys, so that the same content always gives the same text; bytes by their hash. Hashes of records
 * stand on it for years: the text of a content never changes.
 */
export const canonicalJson = (value: unknown): string => written(value, '') ?? 'undefined';

/** A part of it; undefined where JSON leaves it out. */
function written(given: unknown, key: string): string | undefined {
	const value = ownWay(given, key);
	if (value === null) return 'null';
	switch (typeof value) {
		case 'object':
			if (value instanceof Uint8Array) return `"${sha256(value)}"`;
			return Array.isArray(value) ? list(value) : object(value);
		case 'string':
		case 'number':
		case 'boolean':
			return JSON.stringify(value);
		case 'bigint':
			throw new TypeError('A whole number without end cannot be written as JSON.');
		default:
			return undefined;
	}
}

/** What a value says of itself for JSON, as a date does. */
function ownWay(value: unknown, key: string): unknown {
	if (typeof value !== 'object' || value === null) return value;
	const { toJSON } = value as { toJSON?: unknown };
	return typeof toJSON === 'function' ? toJSON.call(value, key) : value;
}

const list = (values: readonly unknown[]): string =>
	`[${values.map((value, i) => written(value, String(i)) ?? 'null').join(',')}]`;

function object(value: object): string {
	const parts: string[] = [];
	for (const key of inOrder(Object.keys(value))) {
		const text = written((value as Record<string, unknown>)[key], key);
		if (text !== undefined) parts.push(`${JSON.stringify(key)}:${text}`);
	}
	return `{${parts.join(',')}}`;
}

/** Keys as an object has them that they were set in order on: numbers first. */
function inOrder(keys: string[]): string[] {
	keys.sort();
	if (!keys.some(startsAsNumber)) return keys;
	const numbers = keys.filter((key) => NUMBER.test(key) && Number(key) < 2 ** 32 - 1);
	return [
		...numbers.sort((a, b) => Number(a) - Number(b)),
		...keys.filter((key) => !numbers.includes(key))
	];
}

const startsAsNumber = (key: string): boolean => {
	const code = key.charCodeAt(0);
	return code >= 48 && code <= 57;
};
