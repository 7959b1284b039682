/**
 * A simulated face in a mask before a particle counter: a hidden fit for each movement, a room whose particles drift or
 * run out, a tube that clogs, and the chance of counting few particles. Seeded.
 */
import { Chance } from '../chance.ts';

/** How the counter, its tube or its room can let one down. */
export const COUNTER_FAULTS = [
	'none',
	'few particles',
	'room falls',
	'clogged tube',
	'no particles',
	'unplugged'
] as const;
export type CounterFault = (typeof COUNTER_FAULTS)[number];

/** What the counter is told to go through. */
export interface CounterStep {
	line: 'room' | 'mask';
	seconds: number;
	/** Movement; '' for none. */
	label: string;
}

/** What stands before the counter, hidden from whoever tests. */
export interface Face {
	seed: number;
	/** Particles in the room at the begin, per cm³. */
	roomPerCm3: number;
	/** Share by which the room changes in a minute. */
	driftPerMin: number;
	/** True fit while a movement is made; of any other that of ''. */
	fit: Readonly<Record<string, number>>;
	fault: CounterFault;
}

export interface CounterSecond {
	s: number;
	run: number;
	step: number;
	perCm3: number;
	flow: number;
}

/** Air that the counter draws in a second, cm³. Invented. */
const CM3_PER_S = 1.7;
/** When a fault sets in, s. */
const FAULT_FROM_S = 45;
/** What is left of the other air in the tube falls to a third in so many seconds. */
const TUBE_S = 0.35;
/** Above so many expected particles their number is as good as normal. */
const MANY = 60;

/** The room at a moment, per cm³. */
export function roomAt({ roomPerCm3, driftPerMin, fault }: Face, s: number): number {
	if (fault === 'no particles') return 0;
	if (fault === 'few particles') return 300;
	const drifted = roomPerCm3 * (1 + (driftPerMin * s) / 60);
	const falls = fault === 'room falls' && s > FAULT_FROM_S;
	return Math.max(0, falls ? drifted * Math.exp(-(s - FAULT_FROM_S) / 25) : drifted);
}

/** How many particles are counted where so many are expected. */
function counted(expected: number, chance: Chance): number {
	if (expected <= 0) return 0;
	if (expected > MANY)
		return Math.max(0, Math.round(expected + chance.normal() * Math.sqrt(expected)));
	const limit = Math.exp(-expected);
	let n = 0;
	for (let product = chance.next(); product > limit; product *= chance.next()) n++;
	return n;
}

/** What the counter reads over some steps, second by second, beginning at a moment. */
export function counterSeconds(
	face: Face,
	steps: readonly CounterStep[],
	span: { from: number; to: number; run: number; startS: number }
): CounterSecond[] {
	const chance = new Chance(face.seed + span.run * 7919);
	const seconds: CounterSecond[] = [];
	let s = span.startS;
	let tube = 0;
	for (let step = span.from; step <= span.to; step++) {
		const { line, seconds: long, label } = steps[step] ?? { line: 'room', seconds: 0, label: '' };
		const fit = face.fit[label] ?? face.fit[''] ?? 1000;
		for (let i = 0; i < long; i++) {
			s++;
			const air = roomAt(face, s) / (line === 'mask' ? fit : 1);
			tube = air + (tube - air) * Math.exp(-1 / TUBE_S);
			const clogged = face.fault === 'clogged tube' && s > FAULT_FROM_S;
			const flow = clogged ? 0.35 : 1;
			const perCm3 = counted(tube * CM3_PER_S * flow, chance) / CM3_PER_S;
			seconds.push({ s, run: span.run, step, perCm3: Number(perCm3.toFixed(3)), flow });
		}
	}
	return seconds;
}
