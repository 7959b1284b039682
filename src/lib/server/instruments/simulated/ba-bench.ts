import { SET_FAULTS } from '../../../../../instruments/ba-bench/simulate.ts';
import { LineClient } from '../line-client.ts';

export { SET_FAULTS };

/** How a simulated set is to be. */
export interface SimulatedSet {
	fillBar: number;
	leakBarPerMin: number;
	whistleBar: number;
	bleedBarPerS: number;
	fault: (typeof SET_FAULTS)[number];
}

/** What only a simulated bench can be told; a real one refuses it. */
export interface BaExtras {
	/** How the next set is. */
	set(set: SimulatedSet): Promise<void>;
	close(): void;
}

export function baExtrasAt(address: string): BaExtras {
	const client = LineClient.to(address);
	return {
		async set({ fillBar, leakBarPerMin, whistleBar, bleedBarPerS, fault }) {
			await client.order(`SIM:SET ${fillBar},${leakBarPerMin},${whistleBar},${bleedBarPerS}`);
			await client.order(`SIM:FAULT ${fault}`);
		},
		close: () => client.close()
	};
}
