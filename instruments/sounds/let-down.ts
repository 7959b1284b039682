import { Spectrum } from '../../src/core/listen/spectrum.ts';
import { WHISTLE_HZ } from '../../src/core/listen/whistle.ts';
import { Chance } from '../../src/core/stats/chance.ts';
import { WORKSHOP, workshopNoise } from './noise.ts';

export interface LetDownSound {
	samples: Float32Array;
	sampleRate: number;
	/** When the whistle begins, s; null: there is none. */
	onsetS: number | null;
	/** Gauge pressure at a moment, bar. */
	barAt: (seconds: number) => number;
	/** What it begins at, bar; null: there is none. */
	onsetBar: number | null;
}

export interface LetDownAsked {
	seed: number;
	/** How far the whistle is above the noise between 1.5 and 5 kHz, dB; null: without a whistle. */
	aboveNoiseDb: number | null;
	sampleRate?: number;
}

/** How loud a whistle becomes, and what comes of it at each moment. */
function whistleTone(chance: Chance, onsetS: number, sampleRate: number, samples: number) {
	const hz = chance.between(1900, 4200);
	const [attack, breath] = [chance.between(0.03, 0.25), chance.between(4, 9)];
	const [falls, wavers] = [chance.between(0, 0.01), chance.between(0, 0.002)];
	let phase = 0;
	return Float32Array.from({ length: samples }, (_, i) => {
		const t = i / sampleRate - onsetS;
		if (t < 0) return 0;
		// It begins softly, wavers a little, and falls as its pressure does.
		phase +=
			(hz * (1 - falls * t * 0.2) * (1 + wavers * Math.sin(2 * Math.PI * breath * t))) / sampleRate;
		const loud = Math.min(1, t / attack) * (1 + 0.15 * Math.sin(2 * Math.PI * breath * t));
		return loud * (Math.sin(2 * Math.PI * phase) + 0.2 * Math.sin(4 * Math.PI * phase));
	});
}

/** Mean square of a sound between 1.5 and 5 kHz. */
function bandPower(samples: Float32Array, sampleRate: number): number {
	const size = 1024;
	const spectrum = new Spectrum(size);
	const powers = new Float64Array(size / 2);
	let [sum, pieces] = [0, 0];
	for (let at = 0; at + size <= samples.length; at += size) {
		spectrum.powers(samples, at, powers);
		pieces++;
		for (let k = 0; k < powers.length; k++) {
			const hz = (k * sampleRate) / size;
			if (hz >= WHISTLE_HZ.least && hz <= WHISTLE_HZ.most) sum += powers[k] ?? 0;
		}
	}
	return sum / Math.max(1, pieces);
}

/**
 * The sound of a let-down in a workshop, drawn from a seed: the noise, and the whistle so far above it, with the pressure
 * that belongs to each moment.
 */
export function letDownSound({
	seed,
	aboveNoiseDb,
	sampleRate = 16_000
}: LetDownAsked): LetDownSound {
	const chance = new Chance(seed);
	const barPerS = chance.between(1, 4);
	const onsetBar = chance.between(40, 70);
	const leadS = chance.between(4, 10);
	const startBar = onsetBar + leadS * barPerS;
	const samples = Math.round((leadS + 6) * sampleRate);
	const kinds = WORKSHOP.filter(() => chance.next() < 0.3);
	const noise = workshopNoise(kinds, chance, { samples, sampleRate });
	let sound = noise;
	if (aboveNoiseDb !== null) {
		const tone = whistleTone(chance, leadS, sampleRate, samples);
		const from = Math.round((leadS + 0.3) * sampleRate);
		const scale = Math.sqrt(
			(bandPower(noise.subarray(from), sampleRate) * 10 ** (aboveNoiseDb / 10)) /
				bandPower(tone.subarray(from), sampleRate)
		);
		sound = noise.map((value, i) => value + scale * (tone[i] ?? 0));
	}
	const most = sound.reduce((peak, value) => Math.max(peak, Math.abs(value)), 1e-9);
	return {
		samples: sound.map((value) => (0.9 * value) / most),
		sampleRate,
		onsetS: aboveNoiseDb === null ? null : leadS,
		barAt: (seconds) => Math.max(0, startBar - barPerS * seconds),
		onsetBar: aboveNoiseDb === null ? null : onsetBar
	};
}
