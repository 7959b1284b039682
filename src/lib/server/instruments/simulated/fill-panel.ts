import { PANEL_FAULTS } from '../../../../../instruments/fill-panel/simulate.ts';
import { LineClient } from '../line-client.ts';

export { PANEL_FAULTS };

/** How a simulated panel is to be. */
export interface SimulatedPanel {
	/** Simulated seconds in one of ours. */
	speed: number;
	fault: (typeof PANEL_FAULTS)[number];
}

/** What only a simulated panel can be told; a real one refuses it. */
export interface PanelExtras {
	behave(how: SimulatedPanel): Promise<void>;
	/** What the next cylinder is like: a real panel has it in front of it. */
	cylinder(like: { waterVolumeL: number; bar: number }): Promise<void>;
	/** How full a bank is. */
	bank(bank: number, waterVolumeL: number, bar: number): Promise<void>;
	close(): void;
}

export function panelExtrasAt(address: string): PanelExtras {
	const client = LineClient.to(address);
	return {
		async behave({ speed, fault }) {
			await client.order(`SIM:SPEED ${speed}`);
			await client.order(`SIM:FAULT ${fault}`);
		},
		cylinder: ({ waterVolumeL, bar }) => client.order(`SIM:CYL ${waterVolumeL},${bar}`),
		bank: (bank, litres, bar) => client.order(`SIM:BANK ${bank},${litres},${bar}`),
		close: () => client.close()
	};
}
