import { soundsOn } from './wanted';

/**
 * What happened, for ears: told apart by rhythm first, so that noise and ears without high tones do not matter, and by
 * rising or falling second. All of them lie below 1 kHz, where age takes least; site's own.
 */
export const SOUNDS = {
	/** A label was read: one short. */
	read: [{ at: 0, for: 0.09, hz: 700 }],
	/** It is kept: two, rising. */
	kept: [
		{ at: 0, for: 0.1, hz: 440 },
		{ at: 0.12, for: 0.16, hz: 700 }
	],
	/** It was refused, or wants a look: two long, low and falling. */
	refused: [
		{ at: 0, for: 0.3, hz: 330 },
		{ at: 0.36, for: 0.45, hz: 220 }
	],
	/** A clock has run out: three pairs. */
	over: [0, 0.5, 1].flatMap((at) => [
		{ at, for: 0.12, hz: 520 },
		{ at: at + 0.17, for: 0.12, hz: 520 }
	])
} as const satisfies Record<string, readonly { at: number; for: number; hz: number }[]>;
export type Sound = keyof typeof SOUNDS;

/** The same for a hand on a telephone, ms on and off. */
const SHAKES: Record<Sound, number[]> = {
	read: [40],
	kept: [60, 60, 120],
	refused: [300, 80, 450],
	over: [120, 60, 120, 250, 120, 60, 120]
};

let audio: AudioContext | null = null;

/** Sounds, and shakes a telephone, where the person of this device wants that. A browser stays silent until it was touched. */
export function sound(which: Sound): void {
	if (!soundsOn()) return;
	navigator.vibrate?.(SHAKES[which]);
	try {
		audio ??= new AudioContext();
		void audio.resume();
		for (const { at, for: length, hz } of SOUNDS[which]) tone(audio, at, length, hz);
	} catch {
		// A device without sound says the same on its screen.
	}
}

function tone(context: AudioContext, at: number, length: number, hz: number): void {
	const [oscillator, gain] = [context.createOscillator(), context.createGain()];
	const begin = context.currentTime + at;
	// With its overtones it is heard in noise too.
	oscillator.type = 'triangle';
	oscillator.frequency.value = hz;
	gain.gain.setValueAtTime(0.0001, begin);
	gain.gain.exponentialRampToValueAtTime(0.5, begin + 0.012);
	gain.gain.setValueAtTime(0.5, begin + length - 0.03);
	gain.gain.exponentialRampToValueAtTime(0.0001, begin + length);
	oscillator.connect(gain).connect(context.destination);
	oscillator.start(begin);
	oscillator.stop(begin + length + 0.02);
}
