import { InstrumentError, LineClient } from './line-client.ts';

/** A thermometer in the bath of the wash line. */
export interface BathThermometer {
	identify(): Promise<string>;
	/** How warm the bath is, °C. */
	read(): Promise<number>;
	close(): void;
}

const CELSIUS = /^-?\d{1,3}(\.\d+)?$/;

/** The thermometer at an address such as 127.0.0.1:4300, over the line protocol. */
export function bathThermometerAt(address: string): BathThermometer {
	const client = LineClient.to(address);
	return {
		identify: () => client.ask('*IDN?'),
		async read() {
			const answer = await client.ask('MEAS:TEMP?');
			if (answer === 'ERR')
				throw new InstrumentError(`The thermometer says: ${await client.ask('SYST:ERR?')}.`);
			// A reading is taken as it was sent or not at all.
			if (!CELSIUS.test(answer))
				throw new InstrumentError(`The thermometer sent “${answer.slice(0, 40)}”.`);
			return Number(answer);
		},
		close: () => client.close()
	};
}
