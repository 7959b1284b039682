import type { z } from 'zod';
import { originLine, type Reason } from '../verdict.ts';
import type { reason } from './operation.ts';

/** Reasons of a verdict in the shape of the calculation interface. */
export function calcReasons(reasons: readonly Reason[]): z.output<typeof reason>[] {
	return reasons.map(({ rule, origin, text, limit, value, unit, margin }) => ({
		rule,
		source: originLine(origin),
		text,
		...(limit === undefined ? {} : { limit }),
		...(value === undefined ? {} : { value }),
		...(unit === undefined ? {} : { unit }),
		...(margin === undefined ? {} : { margin })
	}));
}
