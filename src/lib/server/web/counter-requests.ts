import { z } from 'zod';
import { NOTICED } from '../../../core/custody/noticed.ts';
import { returnItem } from '../custody/returns.ts';
import { handOutItems } from '../handout/hand-out.ts';
import type { Context } from '../kernel/context.ts';
import { clientId, parse } from './request.ts';

const tag = z.string().trim().min(1, 'Scan or type a tag.').max(40);
const words = z.string().trim().max(300, 'At most 300 characters.').optional();
const minutes = z.number('Whole minutes.').int('Whole minutes.').min(1).max(1440).nullable();

export const askedBody = z.object({
	wearerId: clientId,
	tags: z.array(tag).min(1, 'Scan what they take.').max(12),
	planId: clientId.nullable(),
	minutes
});
const handOutBody = askedBody.extend({
	id: clientId,
	accepted: z.boolean().optional(),
	override: words,
	because: words,
	offline: z.boolean().optional()
});
const returnBody = z.object({
	id: clientId,
	tag,
	by: clientId.nullish(),
	unused: z.boolean().optional(),
	minutes: z.number('Whole minutes.').int('Whole minutes.').min(0).max(1440).nullish(),
	planId: clientId.nullish(),
	bar: z.number('A number of bar.').min(0).max(450).nullish(),
	noticed: z.array(z.enum(NOTICED)).max(NOTICED.length).optional(),
	damage: z.object({ station: z.string().max(60), code: z.string().max(12) }).optional(),
	note: words,
	because: words,
	offline: z.boolean().optional()
});

/** What the counter takes from a page, at once or later from its outbox: by the last part of its address. */
export const COUNTER_REQUESTS = {
	'hand-out': (context: Context, body: unknown) => handOutItems(context, parse(handOutBody, body)),
	return: (context: Context, body: unknown) => returnItem(context, parse(returnBody, body))
};
export type CounterRequest = keyof typeof COUNTER_REQUESTS;
export const COUNTER_URL = /^\/api\/counter\/(hand-out|return)$/;
