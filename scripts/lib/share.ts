/**
 * The figure that a share of a list does not go beyond: 0.5 for the median, 1 for the most.
 * @returns as text with so many digits behind the point; NaN of an empty list
 */
export function shareOf(list: readonly number[], share: number, digits = 0): string {
	const sorted = [...list].sort((a, b) => a - b);
	const at = Math.min(sorted.length - 1, Math.floor(sorted.length * share));
	return (sorted[at] ?? NaN).toFixed(digits);
}
