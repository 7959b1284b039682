import { expect } from 'vitest';
import { asFault, type FaultKind } from '../../src/lib/server/errors.ts';

/** Expects work to end in a fault of a kind whose message matches. */
export async function expectFault(
	work: Promise<unknown>,
	kind: FaultKind,
	message: RegExp
): Promise<void> {
	const error: unknown = await work.then(
		() => undefined,
		(e: unknown) => e
	);
	const fault = asFault(error);
	expect(fault, String(error)).toBeDefined();
	expect(fault?.kind).toBe(kind);
	expect(fault?.message).toMatch(message);
}
