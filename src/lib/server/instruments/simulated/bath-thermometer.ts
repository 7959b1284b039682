import { BATH_FAULTS } from '../../../../../instruments/bath-thermometer/simulate.ts';
import { LineClient } from '../line-client.ts';

export { BATH_FAULTS };

/** What only a simulated thermometer can be told; a real one refuses it. */
export function bathExtrasAt(address: string) {
	const client = LineClient.to(address);
	return {
		/** Fills the bath anew. */
		async fill(celsius: number, fault: (typeof BATH_FAULTS)[number]) {
			await client.order(`SIM:FILL ${celsius}`);
			await client.order(`SIM:FAULT ${fault}`);
		},
		close: () => client.close()
	};
}
