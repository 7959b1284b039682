import { normalFrom } from '../chance.ts';
import { Chance } from '../../src/core/stats/chance.ts';

/** Noise of a workshop, drawn from a seed: nothing of it is a warning whistle. */
export const WORKSHOP = [
	'quiet room',
	'compressor',
	'hammering',
	'leak hiss',
	'voices',
	'grinder',
	'phone',
	'beeper'
] as const;
export type WorkshopNoise = (typeof WORKSHOP)[number];

type Voice = (t: number) => number;

/** Makes what one kind of noise adds at each moment. */
function voiceOf(kind: WorkshopNoise, chance: Chance): Voice {
	const turn = (hz: number, t: number) => Math.sin(2 * Math.PI * hz * t);
	if (kind === 'compressor') {
		// A motor at its turns, with what they bring, and the strokes.
		const hz = chance.between(24, 50);
		const parts = Array.from({ length: 18 }, (_, i) => [
			(i + 1) * hz,
			chance.between(0.2, 1) / (i + 1),
			chance.next()
		]) as [number, number, number][];
		return (t) =>
			parts.reduce((sum, [at, size, phase]) => sum + size * turn(at, t + phase), 0) *
			(1 + 0.3 * turn(hz / 4, t));
	}
	if (kind === 'hammering') {
		const every = chance.between(0.3, 0.9);
		const ring = chance.between(800, 3500);
		return (t) => {
			const since = t % every;
			return 6 * Math.exp(-since * 40) * (normalFrom(chance) + turn(ring, since));
		};
	}
	if (kind === 'voices') {
		let [pitch, until, loud] = [140, 0, 1];
		let phase = 0;
		let last = 0;
		return (t) => {
			if (t > until) {
				pitch = chance.between(90, 240);
				until = t + chance.between(0.08, 0.35);
				loud = chance.next() < 0.25 ? 0 : chance.between(0.4, 1.2);
			}
			phase += (t - last) * pitch * (1 + 0.05 * turn(5, t));
			last = t;
			let sum = 0;
			for (let n = 1; n <= 16; n++) sum += Math.sin(2 * Math.PI * n * phase) / n;
			return loud * sum;
		};
	}
	if (kind === 'grinder') {
		// It runs up, screams for a moment and runs down, over and over.
		const top = chance.between(1600, 4200);
		const round = chance.between(3, 7);
		let phase = 0;
		let last = 0;
		return (t) => {
			const part = (t % round) / round;
			const hz = top * (part < 0.4 ? part / 0.4 : 1 - (part - 0.4) / 0.6) + 60;
			phase += (t - last) * hz;
			last = t;
			return Math.sin(2 * Math.PI * phase) + 0.6 * normalFrom(chance);
		};
	}
	if (kind === 'phone') {
		const [low, high] = [chance.between(1200, 2000), chance.between(2000, 3600)];
		const begins = chance.between(2, 8);
		return (t) => {
			const since = t - begins;
			// Two tones by turns, a second on and two off.
			if (since < 0 || since % 3 > 1.2) return 0;
			return 2 * turn(since % 0.1 < 0.05 ? low : high, t);
		};
	}
	if (kind === 'beeper') {
		const hz = chance.between(1500, 3200);
		const every = chance.between(0.8, 1.4);
		return (t) => (t % every < every / 2 ? 2 * turn(hz, t) : 0);
	}
	if (kind === 'leak hiss') {
		let before = 0;
		const begins = chance.between(3, 10);
		return (t) => {
			// What blows is louder the higher it is.
			const now = normalFrom(chance);
			const rises = now - 0.7 * before;
			before = now;
			return t > begins ? 1.5 * rises : 0.2 * rises;
		};
	}
	return () => 0;
}

/** Noise of some kinds at once over a little hiss of the microphone. */
export function workshopNoise(
	kinds: readonly WorkshopNoise[],
	chance: Chance,
	{ samples, sampleRate }: { samples: number; sampleRate: number }
): Float32Array {
	const voices = kinds.map((kind) => voiceOf(kind, chance));
	const level = chance.between(0.05, 0.3);
	// What a room does to hiss: less of it the higher it is.
	let low = 0;
	return Float32Array.from({ length: samples }, (_, i) => {
		const t = i / sampleRate;
		const now = normalFrom(chance);
		low += 0.35 * (now - low);
		return voices.reduce((sum, voice) => sum + voice(t), level * (0.4 * now + low));
	});
}
