/** A number as it was typed, with a comma or a point; NaN for anything else. */
export function typedNumber(text: string): number {
	const tidy = text.trim().replace(',', '.');
	return tidy === '' ? NaN : Number(tidy);
}

/** The same where a field may stay empty: null for nothing. */
export const typedOrNull = (text: string): number | null =>
	text.trim() === '' ? null : typedNumber(text);
