import { COUNTER_FAULTS, type SimulatedFace } from '../instruments/simulated/fit-counter.ts';

/** How well a simulated face fits, as shares of the level to be passed, by movement; the one without a name holds for the rest. */
export const FACES: Readonly<Record<string, Readonly<Record<string, number>>>> = {
	'fits well': { '': 4 },
	'leaks on bending': { '': 4, bend: 0.12 },
	'leaks on talking': { '': 4, talk: 0.12 },
	'fits badly': { '': 0.3 }
};

/** Particles in the room of a simulated counter, per cm³. */
const ROOM_PER_CM3 = 6000;

/** Somebody before a simulated counter. @param passLevel factor that is to be reached */
export const faceOf = (
	name: string,
	passLevel: number,
	fault: (typeof COUNTER_FAULTS)[number],
	speed: number
): SimulatedFace => ({
	seed: Math.ceil(Math.random() * 1_000_000),
	roomPerCm3: ROOM_PER_CM3,
	driftPerMin: 0.01,
	fit: Object.fromEntries(
		Object.entries(FACES[name] ?? FACES['fits well'] ?? {}).map(([move, share]) => [
			move,
			share * passLevel
		])
	),
	fault,
	speed
});
