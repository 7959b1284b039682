import { Spectrum } from './spectrum.ts';

/** Pieces of sound are about this long, and begin so much apart, s: a tone is told from its neighbours, and its begin in time. Site. */
const [PIECE_S, STEP_S] = [0.064, 0.016];

/** Cuts a sound into pieces that overlap, and gives the power of each by frequency. */
export class Pieces {
	private readonly spectrum: Spectrum;
	private readonly step: number;
	private readonly powers: Float64Array;
	private held = new Float32Array(0);
	/** Pieces that were given. */
	count = 0;

	/** @param sampleRate samples a second; at least 11 kHz, for whistles up to 5 kHz */
	constructor(readonly sampleRate: number) {
		if (!(sampleRate >= 11_000 && sampleRate <= 192_000))
			throw new RangeError('sampleRate from 11000 to 192000');
		this.spectrum = new Spectrum(2 ** Math.round(Math.log2(PIECE_S * sampleRate)));
		this.step = Math.max(1, Math.round(STEP_S * sampleRate));
		this.powers = new Float64Array(this.spectrum.size / 2);
	}

	/** Seconds from one piece to the next. */
	readonly stepS = STEP_S;

	/** The bin of a frequency, Hz. */
	binOf(hz: number): number {
		return (hz * this.spectrum.size) / this.sampleRate;
	}

	/** Hz of the middle of a bin. */
	hzOf(bin: number): number {
		return (bin * this.sampleRate) / this.spectrum.size;
	}

	/** Seconds from the first sample to the middle of a piece. */
	timeOf(piece: number): number {
		return (piece * this.step + this.spectrum.size / 2) / this.sampleRate;
	}

	/** @param each hears the power in each bin of each piece that is whole now */
	feed(samples: Float32Array, each: (powers: Float64Array) => void): void {
		const joined = new Float32Array(this.held.length + samples.length);
		joined.set(this.held);
		joined.set(samples, this.held.length);
		let at = 0;
		for (; at + this.spectrum.size <= joined.length; at += this.step) {
			this.spectrum.powers(joined, at, this.powers);
			each(this.powers);
			this.count++;
		}
		this.held = joined.slice(at);
	}
}
