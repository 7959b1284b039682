import { z } from 'zod';
import type { Context } from '../kernel/context.ts';
import { changePlan, takePlan } from '../plan/plan.ts';
import { parse } from './request.ts';

const day = z.iso.date('A day as YYYY-MM-DD.').max(10);
const key = z.string().min(1).max(300);
const userId = z.string().min(1).max(100);
const since = z.number().int().nonnegative();
const requestId = z.uuid();

const place = z.number().int().nonnegative().max(1000);

/** Days and people once, and each job by their places in the lists: twenty thousand jobs fit into a request. */
const taken = z.strictObject({
	requestId,
	since,
	way: z.enum(['anew', 'moved']),
	days: z.array(day).max(1000),
	people: z.array(userId).max(1000),
	placed: z.array(z.tuple([key, place, place])).max(20_000),
	relaxed: z
		.array(
			z.strictObject({
				place: z.string().max(200),
				kind: z.string().max(100),
				from: z.number().int().nonnegative(),
				to: z.number().int().min(-100_000)
			})
		)
		.max(1000)
		.default([])
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
export const askTakePlan = (context: Context, body: unknown) => {
	const { days, people, placed, ...rest } = parse(taken, body);
	return takePlan(context, {
		...rest,
		placed: placed.map(([key, day, person]) => ({
			key,
			day: days[day] ?? '',
			userId: people[person] ?? ''
		}))
	});
};

/** A job is pinned, a day barred, and what must moves. */
export const askChangePlan = (context: Context, body: unknown) =>
	changePlan(context, parse(changed, body));
