import type { DialReading } from './read.ts';

/** So many pictures in a row have to read the same. Site. */
const SAME = 3;

/**
 * Waits until pictures in a row agree: a hand shakes, a needle swings, and one picture is no reading.
 */
export class SteadyDial {
	private last: DialReading[] = [];

	/** @param reading of the next picture; null: it was refused. @returns what all of the last ones agree on */
	take(reading: DialReading | null): { bar: number; plusMinusBar: number } | null {
		if (!reading) {
			this.last = [];
			return null;
		}
		this.last = [...this.last, reading].slice(-SAME);
		if (this.last.length < SAME) return null;
		const bars = this.last.map(({ bar }) => bar);
		const spread = Math.max(...bars) - Math.min(...bars);
		const plusMinus = Math.max(...this.last.map(({ plusMinusBar }) => plusMinusBar));
		if (spread > 2 * plusMinus) return null;
		return {
			bar: bars.reduce((a, b) => a + b, 0) / SAME,
			plusMinusBar: Math.max(plusMinus, spread / 2)
		};
	}
}
