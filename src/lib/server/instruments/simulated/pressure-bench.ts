import { SENSOR_FAULTS } from '../../../../../instruments/pressure-bench/simulate.ts';
import { LineClient } from '../line-client.ts';

/** Faults that a simulated bench can be told to have: of its sensor, or garbage on the line. */
export const MISBEHAVIOURS = ['none', ...SENSOR_FAULTS, 'garbage'] as const;

/** How a simulated bench is to misbehave. */
export interface Misbehaviour {
	leakPaPerMin: number;
	temperatureRiseK: number;
	fault: string;
	seed: number;
	/** Simulated seconds in one of ours. */
	speed: number;
}

/** What only a simulated bench can be told; a real one refuses it. */
export interface BenchExtras {
	/** How the next hold is to go. */
	misbehave(how: Misbehaviour): Promise<void>;
	close(): void;
}

export function benchExtrasAt(address: string): BenchExtras {
	const client = LineClient.to(address);
	return {
		async misbehave({ leakPaPerMin, temperatureRiseK, seed, speed, fault }) {
			await client.order(`SIM:LEAK ${leakPaPerMin}`);
			await client.order(`SIM:TEMP ${temperatureRiseK}`);
			await client.order(`SIM:SEED ${seed}`);
			await client.order(`SIM:SPEED ${speed}`);
			await client.order(`SIM:FAULT ${fault}`);
		},
		close: () => client.close()
	};
}
