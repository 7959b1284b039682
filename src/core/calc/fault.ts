import type { z } from 'zod';

const TYPES: Record<string, string> = {
	number: 'a number',
	int: 'a whole number',
	string: 'a text',
	boolean: 'true or false',
	array: 'a list',
	tuple: 'a list',
	object: 'an object with named fields',
	record: 'an object with named fields'
};

type Issue = z.core.$ZodIssue;

/** What is wrong with a field, by its name: never only that it is. */
export function faultOf(issue: Issue): string {
	const field = nameOf(issue.path);
	switch (issue.code) {
		case 'invalid_type':
			return issue.input === undefined
				? `${field} is missing; it is ${TYPES[issue.expected] ?? issue.expected}.`
				: `${field} must be ${TYPES[issue.expected] ?? issue.expected}, not ${shown(issue.input)}.`;
		case 'invalid_value':
			return `${field} ${issue.input === undefined ? 'is missing; it is' : 'must be'} ${issue.values.length > 1 ? 'one of ' : ''}${issue.values.map(String).join(', ')}${issue.input === undefined ? '' : `, not ${shown(issue.input)}`}.`;
		case 'too_small':
		case 'too_big':
			return issue.message.startsWith('Too ') ? `${field}: ${bound(issue)}` : issue.message;
		case 'unrecognized_keys':
			return `${issue.keys.join(', ')}: no such field${issue.path.length ? ` of ${field}` : ''}.`;
		case 'invalid_union':
			return unionFault(issue, field);
		default:
			return issue.message.startsWith('Invalid') ? `${field} does not fit.` : issue.message;
	}
}

function unionFault(issue: Extract<Issue, { code: 'invalid_union' }>, field: string): string {
	if (issue.input === undefined) return `${field} is missing.`;
	// The form that what was given comes nearest to says most.
	const nearest = issue.errors
		.filter((faults) => faults.length > 0)
		.toSorted((a, b) => depth(b) - depth(a) || a.length - b.length)[0];
	const inner = nearest?.map((fault) =>
		faultOf({ ...fault, path: [...issue.path, ...fault.path] })
	);
	return inner?.length ? inner.join(' ') : `${field} has none of the forms that it may have.`;
}

const depth = (faults: readonly Issue[]) =>
	Math.max(...faults.map((fault) => fault.path.length + (fault.code === 'invalid_type' ? 0 : 1)));

function bound(issue: Extract<Issue, { code: 'too_small' | 'too_big' }>): string {
	const small = issue.code === 'too_small';
	const value = small ? issue.minimum : issue.maximum;
	const many = issue.origin === 'array' || issue.origin === 'string';
	const of = issue.origin === 'array' ? ' of them' : issue.origin === 'string' ? ' characters' : '';
	if (many) return `${small ? 'at least' : 'at most'} ${value}${of}.`;
	if (issue.inclusive === false) return `it lies ${small ? 'above' : 'below'} ${value}.`;
	return `it is ${value} ${small ? 'at least' : 'at most'}.`;
}

/** A field as its name stands in the input; the whole input where the path is empty. */
const nameOf = (path: readonly PropertyKey[]): string => {
	const name = path.findLast((part) => typeof part === 'string');
	const at = path.at(-1);
	if (name === undefined) return at === undefined ? 'The input' : `Entry ${Number(at) + 1}`;
	return typeof at === 'number' ? `${String(name)}[${at}]` : String(name);
};

function shown(input: unknown): string {
	if (input === null) return 'null';
	if (Array.isArray(input)) return 'a list';
	if (typeof input === 'object') return 'an object';
	const text = typeof input === 'string' ? `“${input}”` : String(input);
	return text.length > 40 ? `${text.slice(0, 40)} ...` : text;
}

/** What is larger or smaller than this was never measured. Site: far beyond any real quantity of the trade. */
const LARGEST = 1e12;
const SMALLEST = 1e-12;

/** The first number of an input that no instrument shows; undefined where there is none. */
export function beyondMeasure(
	value: unknown,
	path: readonly PropertyKey[] = []
): { path: readonly PropertyKey[]; message: string } | undefined {
	if (typeof value === 'number') {
		const size = Math.abs(value);
		if (size <= LARGEST && (size === 0 || size >= SMALLEST)) return undefined;
		return {
			path,
			message: `${nameOf(path)}: ${value} is no quantity that is met. Check the unit.`
		};
	}
	if (value === null || typeof value !== 'object') return undefined;
	const entries = Array.isArray(value)
		? value.map((one, i) => [i, one] as const)
		: Object.entries(value);
	for (const [key, inner] of entries) {
		const found = beyondMeasure(inner, [...path, key]);
		if (found) return found;
	}
	return undefined;
}
