/** Whether an instrument answers, and what it calls itself, or else what is wrong. Lets it go. */
export async function answering(instrument: {
	identify(): Promise<string>;
	close(): void;
}): Promise<{ says: string; live: boolean }> {
	try {
		return { says: await instrument.identify(), live: true };
	} catch (error) {
		return { says: (error as Error).message, live: false };
	} finally {
		instrument.close();
	}
}

/**
 * The instrument of a list, from 1, that was asked for, or the first that nothing holds; undefined where it is held.
 * @param held numbers of those that something holds
 */
export function freeOf(
	addresses: readonly string[],
	held: readonly (number | null)[],
	wanted: number | undefined
): number | undefined {
	const free = addresses.map((_, i) => i + 1).filter((n) => !held.includes(n));
	return wanted === undefined ? free[0] : free.find((n) => n === wanted);
}
