import { InstrumentError, LineClient } from './line-client.ts';

/** A receiver for the gauges of wearers. */
export interface Telemetry {
	/** What each channel sent: gauge bar, or null for one that is not heard. */
	read(channels: readonly string[]): Promise<(number | null)[]>;
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
		close: () => client.close()
	};
}
