/** A number as it was typed, with a comma or a point; NaN for anything else. */
export function typedNumber(text: string): number {
	const tidy = text.trim().replace(',', '.');
	return tidy === '' ? NaN : Number(tidy);
}
