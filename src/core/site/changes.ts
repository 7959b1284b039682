/** One choice that became another, in the words that people read. */
export interface Change {
	what: string;
	from: string;
	to: string;
}

/** A value of a choice in words. */
export function choiceWords(value: unknown): string {
	if (value === null || value === undefined || value === '') return 'none';
	if (typeof value === 'boolean') return value ? 'yes' : 'no';
	if (Array.isArray(value))
		return value.length === 0 ? 'none' : value.map((one) => choiceWords(one)).join(', ');
	if (typeof value === 'object')
		return Object.values(value)
			.map((one) => choiceWords(one))
			.join(' ');
	return String(value as string | number);
}

/**
 * What differs between two states of the same choices, old and new, in the order of the names.
 * @param names what each choice is called; a choice without a name is not compared
 * @param words a value in other words than its own
 */
export function changesBetween<T extends object>(
	before: T,
	after: T,
	names: Partial<Record<keyof T, string>>,
	words: (key: keyof T, value: unknown) => string = (_, value) => choiceWords(value)
): Change[] {
	return (Object.keys(names) as (keyof T)[]).flatMap((key) => {
		const [from, to] = [words(key, before[key]), words(key, after[key])];
		return from === to ? [] : [{ what: names[key] ?? String(key), from, to }];
	});
}

/** Changes as one sentence. */
export const changeWords = (changes: readonly Change[]): string =>
	changes.map(({ what, from, to }) => `${what} from ${from} to ${to}`).join('; ');
