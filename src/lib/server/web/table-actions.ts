import type { RequestEvent } from '@sveltejs/kit';
import { z } from 'zod';
import {
	DAY_WAYS,
	ENCODINGS,
	NUMBER_WAYS,
	type TableAsks,
	type TableFile
} from '../../../core/csv/ways.ts';
import { takeBack, type TableGiven } from '../register/tables.ts';
import type { Context } from '../kernel/context.ts';
import { ticked, uploaded } from './form-fields.ts';
import { action, clientId, contextOf, formAction, formBody, parse, requested } from './request.ts';

/** Rows and faults shown at most; their number is always said. */
export const SHOWN = 200;

interface Preview {
	newCount: number;
	faults: { row: number; column: string; message: string }[];
	rows: number;
	unknown: string[];
	encoding: string;
	asks: TableAsks;
}

const unsaid = z.literal('').transform(() => undefined);
const waysSchema = z.object({
	numbers: unsaid.or(z.enum(NUMBER_WAYS)).optional(),
	days: unsaid.or(z.enum(DAY_WAYS)).optional(),
	encoding: unsaid.or(z.enum(ENCODINGS)).optional()
});

/** The table that a form brings, with what was said of how it is written. @throws Refusal where there is none */
export const tableOf = async (fields: Record<string, unknown>): Promise<TableFile> => ({
	bytes: (await uploaded(fields, 'Choose a CSV file first.')).bytes,
	ways: parse(waysSchema, {
		numbers: fields.numbers,
		days: fields.days,
		encoding: fields.encoding
	})
});

type Look<E> = (context: Context, file: TableFile, event: E) => Promise<Preview>;
type Take<E> = (context: Context, given: TableGiven, event: E) => Promise<{ imported: number }>;

/**
 * The actions of a page that takes a table in: what it would do, and doing it.
 * @param preview what a table would bring; writes nothing
 * @param take takes it in
 */
export const takeActions = <E extends RequestEvent>(preview: Look<E>, take: Take<E>) => ({
	preview: (event: E) =>
		action(async () => {
			const file = await tableOf(await formBody(event.request));
			const found = await preview(contextOf(event), file, event);
			const { faults } = found;
			return {
				preview: { ...found, faultCount: faults.length, faults: faults.slice(0, SHOWN) }
			};
		}),
	import: (event: E) =>
		action(async () => {
			const fields = await formBody(event.request);
			const { id, leaveOutBad } = parse(z.object({ id: clientId, leaveOutBad: ticked }), fields);
			const given = { id, file: await tableOf(fields), leaveOutBad: leaveOutBad === 'on' };
			return take(contextOf(event), given, event);
		})
});

/** The same, and taking a whole table back. */
export const tableActions = (preview: Look<RequestEvent>, take: Take<RequestEvent>) => ({
	...takeActions(preview, take),
	takeBack: formAction(
		z.object({ ...requested, id: clientId }),
		async (event: RequestEvent, input) => ({
			takenBack: (await takeBack(contextOf(event), input)).rows
		})
	)
});
