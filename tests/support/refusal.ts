import { expect } from 'vitest';
import { asRefusal, type RefusalKind } from '../../src/lib/server/kernel/refusal.ts';

/** Expects work to end in a fault of a kind whose message matches. */
export async function expectRefusal(
	work: Promise<unknown>,
	kind: RefusalKind,
	message: RegExp
): Promise<void> {
	const error: unknown = await work.then(
		() => undefined,
		(e: unknown) => e
	);
	const fault = asRefusal(error);
	expect(fault, String(error)).toBeDefined();
	expect(fault?.kind).toBe(kind);
	expect(fault?.message).toMatch(message);
}
