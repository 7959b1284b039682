import { Pieces } from './pieces.ts';

/** Where what blows through a small hole is heard, Hz. Common practice. */
const [LEAST_HZ, MOST_HZ] = [3000, 7500];
/** What is usual is learnt for so long, s, and then counts. */
const LEARNS_S = 1.5;
/** So much above it, dB, for so long, s, is a hint. Site. */
const [ABOVE_DB, STAYS_S] = [6, 1];
/** A hiss has no tone: its strongest bin stays below so many times the middle one. Site. */
const NO_TONE = 30;
/** How fast the level is followed, s: hammering between is no hiss. */
const SLOW_S = 0.4;

/** How much louder the rush of air is than as listening began. */
export interface HissHint {
	aboveDb: number;
}

/**
 * Hears a hiss that began while it listens. It is a hint where to look and never a verdict: air blows in a workshop, and
 * a leak that is heard is found by soap and by the gauge.
 * The numbers are the site's own, measured against seeded sounds.
 */
export class HissEar {
	private readonly pieces: Pieces;
	private usual = 0;
	private level = 0;
	private since: number | null = null;

	constructor(sampleRate: number) {
		this.pieces = new Pieces(sampleRate);
	}

	/** Hears on. @returns the hint that stands now; null: there is none */
	hear(samples: Float32Array): HissHint | null {
		this.pieces.feed(samples, (powers) => this.piece(powers));
		const now = this.pieces.timeOf(this.pieces.count);
		if (this.since === null || now - this.since < STAYS_S) return null;
		return { aboveDb: this.aboveDb() };
	}

	private aboveDb = (): number => 10 * Math.log10(this.level / Math.max(this.usual, 1e-15));

	private piece(powers: Float64Array): void {
		const { pieces } = this;
		const most = Math.min(MOST_HZ, 0.47 * pieces.sampleRate);
		const band = powers
			.slice(Math.floor(pieces.binOf(LEAST_HZ)), Math.ceil(pieces.binOf(most)))
			.sort();
		const middle = band[band.length >> 1] ?? 0;
		const toned = (band.at(-1) ?? 0) > NO_TONE * middle;
		const now = pieces.timeOf(pieces.count);
		if (now < LEARNS_S) {
			this.usual += (middle - this.usual) / (pieces.count + 1);
			this.level = this.usual;
			return;
		}
		// What rings or beeps says nothing of the air beside it.
		if (!toned) this.level += (pieces.stepS / SLOW_S) * (middle - this.level);
		if (this.aboveDb() >= ABOVE_DB) this.since ??= now;
		else this.since = null;
	}
}
