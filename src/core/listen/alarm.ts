import { Pieces } from './pieces.ts';

/** Where distress units sound, Hz. Common practice; makers give their own within it. */
const [LEAST_HZ, MOST_HZ] = [1500, 5000];
/** A piece is loud when the strongest tone is so many times what is usual there. Site. */
const [STANDS_OUT, LOUDER] = [40, 20];
/** What an alarm comes and goes by: times a second, and how regular, as spread by mean. Site. */
const [SLOWEST_HZ, FASTEST_HZ, UNEVEN] = [0.4, 8, 0.3];
/** So many rounds have to be heard. */
const ROUNDS = 4;

/** A sound that comes and goes evenly, as a distress unit's alarm does. */
export interface AlarmHeard {
	/** Rounds a second. */
	perS: number;
	hz: number;
}

/**
 * Hears an alarm that pulses. A reversing lorry does too: it says that one sounds, and the person whose it is.
 * The numbers are the site's own, measured against seeded sounds.
 */
export class AlarmEar {
	private readonly pieces: Pieces;
	private usual = 0;
	private loud = false;
	/** When it became loud, s, the last rounds. */
	private begins: number[] = [];
	private hz = 0;

	constructor(sampleRate: number) {
		this.pieces = new Pieces(sampleRate);
	}

	/** Hears on. @returns the alarm that sounds now; null: none does */
	hear(samples: Float32Array): AlarmHeard | null {
		this.pieces.feed(samples, (powers) => this.piece(powers));
		const { begins } = this;
		const now = this.pieces.timeOf(this.pieces.count);
		if (begins.length <= ROUNDS) return null;
		const gaps = begins.slice(1).map((at, i) => at - (begins[i] ?? 0));
		const mean = gaps.reduce((a, b) => a + b, 0) / gaps.length;
		const spread = Math.sqrt(gaps.reduce((sum, gap) => sum + (gap - mean) ** 2, 0) / gaps.length);
		const goesOn = now - (begins.at(-1) ?? 0) < 2.5 * mean;
		const even = spread / mean <= UNEVEN && mean >= 1 / FASTEST_HZ && mean <= 1 / SLOWEST_HZ;
		return goesOn && even ? { perS: 1 / mean, hz: this.hz } : null;
	}

	private piece(powers: Float64Array): void {
		const from = Math.floor(this.pieces.binOf(LEAST_HZ));
		const to = Math.ceil(this.pieces.binOf(MOST_HZ));
		const band = powers.slice(from, to + 1);
		let best = 0;
		for (let i = 0; i < band.length; i++) if ((band[i] ?? 0) > (band[best] ?? 0)) best = i;
		const peak = band[best] ?? 0;
		const middle = band.sort()[band.length >> 1] ?? 0;
		this.usual = this.usual === 0 ? middle : this.usual + 0.01 * (middle - this.usual);
		const tone = peak > STANDS_OUT * middle && peak > LOUDER * this.usual;
		if (tone && !this.loud) {
			const at = this.pieces.timeOf(this.pieces.count);
			// A flutter of a few pieces is one begin.
			if (at - (this.begins.at(-1) ?? -1) > 0.06)
				this.begins = [...this.begins, at].slice(-ROUNDS - 3);
			this.hz = this.pieces.hzOf(from + best);
		}
		this.loud = tone;
	}
}
