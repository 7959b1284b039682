import { z } from 'zod';
import type { Context } from '../kernel/context.ts';
import { changePlan, takePlan } from '../plan/plan.ts';
import { parse } from './request.ts';

const day = z.iso.date('A day as YYYY-MM-DD.').max(10);
const key = z.string().min(1).max(300);
const userId = z.string().min(1).max(100);
const since = z.number().int().nonnegative();
const requestId = z.uuid();

const taken = z.strictObject({
	requestId,
	since,
	way: z.enum(['anew', 'moved']),
	placed: z.array(z.strictObject({ key, day, userId })).max(20_000)
});

const changed = z.strictObject({
	requestId,
	since,
	nevertheless: z.boolean().default(false),
	wish: z.discriminatedUnion('kind', [
		z.strictObject({ kind: z.literal('again') }),
		z.strictObject({ kind: z.literal('pin'), key, day, userId }),
		z.strictObject({ kind: z.literal('unpin'), key }),
		z.strictObject({
			kind: z.literal('bar'),
			day,
			userId: userId.nullable(),
			why: z.string().trim().max(200).default('')
		}),
		z.strictObject({ kind: z.literal('open'), day, userId: userId.nullable() })
	])
});

/** A plan that was made on a device goes into force. */
export const askTakePlan = (context: Context, body: unknown) => takePlan(context, parse(taken, body));

/** A job is pinned, a day barred, and what must moves. */
export const askChangePlan = (context: Context, body: unknown) =>
	changePlan(context, parse(changed, body));
