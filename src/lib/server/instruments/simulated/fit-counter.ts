import {
	COUNTER_FAULTS,
	counterSeconds,
	type Face
} from '../../../../../instruments/fit-counter/simulate.ts';
import { LineClient } from '../line-client.ts';

export { COUNTER_FAULTS, counterSeconds };

/** What a simulated counter has before it. */
export interface SimulatedFace extends Face {
	/** Simulated seconds in one of ours. */
	speed: number;
}

/** What only a simulated counter can be told; a real one refuses it. */
export interface CounterExtras {
	/** Who stands before it next, and how it behaves. */
	face(face: SimulatedFace): Promise<void>;
	/** It behaves otherwise from now on: plugged in again, its tube cleared. */
	behave(fault: Face['fault']): Promise<void>;
	close(): void;
}

export function counterExtrasAt(address: string): CounterExtras {
	const client = LineClient.to(address);
	const behave = (fault: Face['fault']) => client.order(`SIM:FAULT ${fault}`);
	return {
		async face({ seed, roomPerCm3, driftPerMin, fit, fault, speed }) {
			await behave(fault);
			await client.order(`SIM:FACE ${seed},${roomPerCm3},${driftPerMin}`);
			const fits = Object.entries(fit).map(([move, factor]) => `${move}=${factor}`);
			await client.order(`SIM:FIT ${fits.join(',')}`);
			await client.order(`SIM:SPEED ${speed}`);
		},
		behave,
		close: () => client.close()
	};
}
