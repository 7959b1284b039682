import { Fault } from '../errors.ts';
import { InstrumentError } from './line-client.ts';

/**
 * Works with an instrument and lets it go; what it says against it is said on as a fault.
 * @param advice what the person can do meanwhile
 */
export async function withInstrument<I extends { close(): void }, T>(
	instrument: I,
	advice: string,
	work: (instrument: I) => Promise<T>
): Promise<T> {
	try {
		return await work(instrument);
	} catch (error) {
		if (!(error instanceof InstrumentError)) throw error;
		throw new Fault('unavailable', [error.message, advice].filter(Boolean).join(' '));
	} finally {
		instrument.close();
	}
}
