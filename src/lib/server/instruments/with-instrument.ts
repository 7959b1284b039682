import { Refusal } from '../kernel/refusal.ts';
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
		throw new Refusal('unavailable', [error.message, advice].filter(Boolean).join(' '));
	} finally {
		instrument.close();
	}
}

/** Tells an instrument something that only a simulated one understands; a real one refuses, which changes nothing. */
export async function withExtras<I extends { close(): void }>(
	extras: I,
	work: (extras: I) => Promise<void>
): Promise<void> {
	try {
		await work(extras);
	} catch (error) {
		if (!(error instanceof InstrumentError)) throw error;
	} finally {
		extras.close();
	}
}
