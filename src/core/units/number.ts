const formats = new Map<number, Intl.NumberFormat>();

/**
 * A number as people read it, to so many significant digits: 1,234 or 0.0123.
 * Formats are kept: making one costs far more than using it.
 */
export function readableNumber(value: number, significantDigits: number): string {
	let format = formats.get(significantDigits);
	if (!format) {
		format = new Intl.NumberFormat('en-GB', { maximumSignificantDigits: significantDigits });
		formats.set(significantDigits, format);
	}
	return format.format(value);
}
