import { TELEMETRY_FAULTS } from '../../../../instruments/telemetry/receiver.ts';
import { InstrumentError, LineClient } from './line-client.ts';

export { TELEMETRY_FAULTS };

/** How a simulated wearer breathes; a real receiver takes no notice. */
export interface SimulatedWearer {
	waterVolumeL: number;
	startBar: number;
	lPerMin: number;
}

/** A receiver for the gauges of wearers, simulated or real. */
export interface Telemetry {
	/** What each channel sent: gauge bar, or null for one that is not heard. */
	read(channels: readonly string[]): Promise<(number | null)[]>;
	simulate(channel: string, wearer: SimulatedWearer): Promise<void>;
	simulateRate(channel: string, lPerMin: number): Promise<void>;
	simulateFault(channel: string, fault: (typeof TELEMETRY_FAULTS)[number]): Promise<void>;
	/** Simulated minutes in one of ours. */
	simulateSpeed(speed: number): Promise<void>;
	close(): void;
}

const PRESSURE = /^\d{1,3}(\.\d+)?$/;

/** The receiver at an address such as 127.0.0.1:4400, over the line protocol. */
export function telemetryAt(address: string): Telemetry {
	const client = LineClient.to(address);
	return {
		async read(channels) {
			const words = (await client.ask(`FETC? ${channels.join(',')}`)).split(',');
			if (words.length !== channels.length)
				throw new InstrumentError('The receiver sent another number of channels.');
			// What is no pressure is not one: that channel counts as not heard.
			return words.map((word) => (PRESSURE.test(word) ? Number(word) : null));
		},
		simulate: (channel, { waterVolumeL, startBar, lPerMin }) =>
			client.order(`SIM:ON ${channel},${waterVolumeL},${startBar},${lPerMin}`),
		simulateRate: (channel, lPerMin) => client.order(`SIM:RATE ${channel},${lPerMin}`),
		simulateFault: (channel, fault) => client.order(`SIM:FAULT ${channel},${fault}`),
		simulateSpeed: (speed) => client.order(`SIM:SPEED ${speed}`),
		close: () => client.close()
	};
}
