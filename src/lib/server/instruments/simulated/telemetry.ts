import { TELEMETRY_FAULTS } from '../../../../../instruments/telemetry/receiver.ts';
import { LineClient } from '../line-client.ts';

export { TELEMETRY_FAULTS };

/** How a simulated wearer breathes. */
export interface SimulatedWearer {
	waterVolumeL: number;
	startBar: number;
	lPerMin: number;
}

/** What only a simulated receiver can be told; a real one knows its own gauges and refuses it. */
export interface TelemetryExtras {
	wearer(channel: string, wearer: SimulatedWearer): Promise<void>;
	rate(channel: string, lPerMin: number): Promise<void>;
	fault(channel: string, fault: (typeof TELEMETRY_FAULTS)[number]): Promise<void>;
	/** Simulated minutes in one of ours. */
	speed(speed: number): Promise<void>;
	close(): void;
}

export function telemetryExtrasAt(address: string): TelemetryExtras {
	const client = LineClient.to(address);
	return {
		wearer: (channel, { waterVolumeL, startBar, lPerMin }) =>
			client.order(`SIM:ON ${channel},${waterVolumeL},${startBar},${lPerMin}`),
		rate: (channel, lPerMin) => client.order(`SIM:RATE ${channel},${lPerMin}`),
		fault: (channel, fault) => client.order(`SIM:FAULT ${channel},${fault}`),
		speed: (speed) => client.order(`SIM:SPEED ${speed}`),
		close: () => client.close()
	};
}
