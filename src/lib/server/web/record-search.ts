import { z } from 'zod';
import { RECORD_GROUPS } from '../../../core/actions/catalogue.ts';
import { parse } from './request.ts';

const empty = z.literal('').transform(() => null);
const given = <T extends z.ZodType>(schema: T) => empty.or(schema).nullable().default(null);

const period = z.object({
	from: given(z.iso.date('Type the first day.')),
	to: given(z.iso.date('Type the last day.'))
});

/** The first and the last day, as they stand in an address. @throws Refusal at what cannot be read */
export const periodOf = (params: URLSearchParams) => parse(period, Object.fromEntries(params));

const searchSchema = z.object({
	tag: given(z.string().trim().max(60)),
	who: given(z.string().max(60)),
	place: given(z.uuid()),
	group: given(z.enum(RECORD_GROUPS)),
	...period.shape,
	before: given(z.coerce.number().int().positive())
});

/** What is looked for, as it stands in an address. @throws Refusal at what cannot be read */
export const recordSearch = (params: URLSearchParams) =>
	parse(searchSchema, Object.fromEntries(params));
