import {
	canStillPass,
	fitProtocol,
	judgeProtocol,
	standingOf
} from '../../../core/fit/protocols.ts';
import { type CounterReading, factorsOf, measuredBy } from '../../../core/fit/sequence.ts';
import type { fitSession } from '../db/schema/index.ts';

/** What a test with a counter comes to by its readings, whether or not it has ended. */
export function quantitativeNow(
	session: typeof fitSession.$inferSelect,
	readings: readonly CounterReading[]
) {
	const protocol = fitProtocol(session.protocol ?? '');
	const measured = measuredBy(protocol, readings, { leastRoom: session.leastRoom });
	const factors = factorsOf(measured);
	const standing = standingOf(protocol, factors);
	return {
		protocol,
		measured,
		factors,
		standing,
		canPass: canStillPass(protocol, factors, session.mask),
		verdict: standing.left.length ? null : judgeProtocol(protocol, factors, session.mask)
	};
}
