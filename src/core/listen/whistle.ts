import { Pieces } from './pieces.ts';

/** Where a warning whistle sounds, Hz. Common practice; makers give their own within it. */
export const WHISTLE_HZ = { least: 1500, most: 5000 } as const;

/** A bin this many times above what is about it, in frequency, is a tone. Site: measured in the benchmark. */
const STANDS_OUT = 10;
/** And this many times above what was there before, to begin one: what hums all the time is no onset. Site. */
const NEW = 8;
/** How long it has to stay, s, and in how many of its pieces it has to be found: a ring, a beeper, a voice do not. Site. */
const [STAYS_S, FOUND] = [2.5, 0.85];
/** After so long it may be one: who reads the gauge is told to. Site. */
const PERHAPS_S = 0.4;
/** Bins by which a tone may move from one piece to the next. Site. */
const MOVES = 2;
/** How far it may stray from where it began, as a share: a whistle holds its tone, a motor that runs up does not. Site. */
const STRAYS = 0.06;
/** A tone that is gone for so long has ended, s. Site. */
const GONE_S = 0.15;
/** What was there before is learnt for so long before anything counts, and forgotten so slowly, s. Site. */
const [LEARNS_S, FORGETS_S] = [1, 3];
/** Bins of a block whose middle value is the noise there. */
const BLOCK = 12;
/** Rows of the picture of what was heard. */
export const STRIP_ROWS = 32;

/** A whistle that began and stayed. */
export interface WhistleHeard {
	/** Seconds from the first sample to its onset. */
	onsetS: number;
	/** Where it sounded at first, Hz. */
	hz: number;
	/** How far it stood out of the noise about it at its strongest, dB. */
	aboveDb: number;
}

interface Track {
	bin: number;
	begun: number;
	last: number;
	found: number;
	first: number;
	most: number;
}

/**
 * Listens for the onset of a warning whistle: a narrow tone between 1.5 and 5 kHz that stands out of the noise, was not
 * there before, and stays. It hears no pressure and decides nothing: whoever listens takes the gauge's figure of that
 * moment and asks the person.
 *
 * Published: short-time spectra with an adaptive threshold, as in onset detection by spectral flux (J. P. Bello and
 * others, IEEE Transactions on Speech and Audio Processing 13, 2005); from memory. The numbers are the site's own, measured
 * against seeded sounds.
 */
export class WhistleEar {
	private readonly pieces: Pieces;
	private readonly from: number;
	private readonly bins: number;
	private powers: Float64Array = new Float64Array(0);
	private readonly before: Float64Array;
	private readonly about: Float64Array;
	private readonly middles: Float64Array;
	private tracks: Track[] = [];

	/** @param sampleRate samples a second; at least 11 kHz, for whistles up to 5 kHz */
	constructor(readonly sampleRate: number) {
		this.pieces = new Pieces(sampleRate);
		this.from = Math.floor(this.pieces.binOf(WHISTLE_HZ.least));
		this.bins = Math.ceil(this.pieces.binOf(WHISTLE_HZ.most)) - this.from + 1;
		this.before = new Float64Array(this.bins);
		this.about = new Float64Array(Math.ceil(this.bins / BLOCK));
		this.middles = new Float64Array(this.about.length);
	}

	private get piece(): number {
		return this.pieces.count;
	}

	/** Hz of the middle of a bin. */
	private hzOf(bin: number): number {
		return this.pieces.hzOf(this.from + bin);
	}

	/**
	 * Hears on.
	 * @param samples what followed, one channel, from -1 to 1
	 * @param drawn hears each piece as a column of the picture, levels in dB below full scale from low to high
	 * @returns whistles that are certain now; each once
	 */
	hear(samples: Float32Array, drawn?: (column: Float32Array) => void): WhistleHeard[] {
		const heard: WhistleHeard[] = [];
		this.pieces.feed(samples, (powers) => {
			this.powers = powers;
			heard.push(...this.listen());
			drawn?.(this.column());
		});
		return heard;
	}

	private listen(): WhistleHeard[] {
		const learning = this.piece * this.pieces.stepS < LEARNS_S;
		this.measureAbout();
		const tones = this.tones();
		const tracked = this.follow(tones);
		if (!learning)
			for (const { bin, above } of tones)
				if (!tracked.has(bin) && this.powerAt(bin) > NEW * this.backgroundAt(bin))
					this.tracks.push({
						bin,
						first: bin,
						begun: this.piece,
						last: this.piece,
						found: 1,
						most: above
					});
		this.remember(learning);
		return this.certain();
	}

	private powerAt = (bin: number): number => this.powers[this.from + bin] ?? 0;

	/** What was there before, a tone that moved a little included. */
	private backgroundAt(bin: number): number {
		let most = 0;
		for (let k = bin - MOVES; k <= bin + MOVES; k++) most = Math.max(most, this.before[k] ?? 0);
		return most;
	}

	/** The noise about each block of bins: the middle power of it and of those beside it, whatever tones stand in them. */
	private measureAbout(): void {
		const { middles, about } = this;
		for (let block = 0; block < about.length; block++) {
			const from = this.from + block * BLOCK;
			const part = this.powers.slice(from, Math.min(from + BLOCK, this.from + this.bins)).sort();
			middles[block] = part[part.length >> 1] ?? 0;
		}
		for (let block = 0; block < about.length; block++) {
			const own = middles[block] ?? 0;
			const [low, high] = [middles[block - 1] ?? own, middles[block + 1] ?? own];
			about[block] = Math.max(Math.min(low, high), Math.min(own, Math.max(low, high)));
		}
	}

	private noiseAt(bin: number): number {
		return this.about[Math.floor(bin / BLOCK)] ?? 0;
	}

	private tones(): { bin: number; above: number }[] {
		const found: { bin: number; above: number }[] = [];
		for (let bin = 1; bin < this.bins - 1; bin++) {
			const power = this.powerAt(bin);
			if (power < this.powerAt(bin - 1) || power <= this.powerAt(bin + 1)) continue;
			const above = power / Math.max(this.noiseAt(bin), Number.MIN_VALUE);
			if (above > STANDS_OUT) found.push({ bin, above });
		}
		return found;
	}

	/** Takes each track on to the tone nearest to it. @returns bins that belong to one */
	private follow(tones: readonly { bin: number; above: number }[]): Set<number> {
		const taken = new Set<number>();
		for (const track of this.tracks) {
			let best: { bin: number; above: number } | undefined;
			for (const tone of tones)
				if (
					Math.abs(tone.bin - track.bin) <= MOVES &&
					(!best || Math.abs(tone.bin - track.bin) < Math.abs(best.bin - track.bin))
				)
					best = tone;
			if (!best) continue;
			taken.add(best.bin);
			track.bin = best.bin;
			track.last = this.piece;
			track.found++;
			track.most = Math.max(track.most, best.above);
		}
		this.tracks = this.tracks.filter(
			(track) =>
				(this.piece - track.last) * this.pieces.stepS <= GONE_S &&
				Math.abs(track.bin - track.first) <= 1 + STRAYS * (this.from + track.first) &&
				// One that is there in too few of its pieces is noise.
				(this.piece - track.begun < 12 ||
					track.found / (this.piece - track.begun + 1) >= FOUND - 0.15)
		);
		return taken;
	}

	/** Learns what is there all the time; not from what may be the whistle. */
	private remember(learning: boolean): void {
		const share = learning ? 1 / (this.piece + 1) : this.pieces.stepS / FORGETS_S;
		const beside = new Set<number>();
		for (const { bin } of this.tracks)
			for (let k = bin - MOVES; k <= bin + MOVES; k++) beside.add(k);
		for (let bin = 0; bin < this.bins; bin++)
			if (!beside.has(bin))
				this.before[bin] =
					(this.before[bin] ?? 0) + share * (this.powerAt(bin) - (this.before[bin] ?? 0));
	}

	/** A tone that began and goes on, and is not certain yet: since when, s, and where, Hz; null: there is none. */
	perhaps(): { sinceS: number; hz: number } | null {
		const least = Math.ceil(PERHAPS_S / this.pieces.stepS);
		const likely = this.tracks
			.filter(({ begun, found }) => {
				const age = this.piece - begun;
				return age >= least && found / age >= FOUND;
			})
			.sort((a, b) => b.most - a.most)[0];
		return likely
			? { sinceS: this.pieces.timeOf(likely.begun), hz: this.hzOf(likely.first) }
			: null;
	}

	private certain(): WhistleHeard[] {
		const stays = Math.ceil(STAYS_S / this.pieces.stepS);
		const sure = this.tracks.filter(({ begun, found }) => {
			const age = this.piece - begun + 1;
			return age === stays && found / age >= FOUND;
		});
		return sure.map(({ begun, first, most }) => ({
			onsetS: this.pieces.timeOf(begun),
			hz: this.hzOf(first),
			aboveDb: 10 * Math.log10(most)
		}));
	}

	private column(): Float32Array {
		const rows = new Float32Array(STRIP_ROWS);
		for (let row = 0; row < STRIP_ROWS; row++) {
			const from = Math.floor((row * this.bins) / STRIP_ROWS);
			const to = Math.max(from + 1, Math.floor(((row + 1) * this.bins) / STRIP_ROWS));
			let most = 0;
			for (let bin = from; bin < to; bin++) most = Math.max(most, this.powerAt(bin));
			rows[row] = 10 * Math.log10(most + 1e-12);
		}
		return rows;
	}
}
