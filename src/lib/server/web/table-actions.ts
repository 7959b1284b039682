import type { RequestEvent } from '@sveltejs/kit';
import { z } from 'zod';
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
}

/** The table that a form brings. @throws Refusal where there is none */
export const bytesOf = async (fields: Record<string, unknown>) =>
	(await uploaded(fields, 'Choose a CSV file first.')).bytes;

/**
 * The actions of a page that takes a table in: what it would do, doing it, and taking a whole table back.
 * @param preview what a table would bring; writes nothing
 * @param take takes it in
 */
export const tableActions = (
	preview: (context: Context, bytes: Uint8Array) => Promise<Preview>,
	take: (context: Context, given: TableGiven) => Promise<{ imported: number }>
) => ({
	preview: (event: RequestEvent) =>
		action(async () => {
			const found = await preview(contextOf(event), await bytesOf(await formBody(event.request)));
			const { faults } = found;
			return {
				preview: { ...found, faultCount: faults.length, faults: faults.slice(0, SHOWN) }
			};
		}),
	import: (event: RequestEvent) =>
		action(async () => {
			const fields = await formBody(event.request);
			const { id, leaveOutBad } = parse(z.object({ id: clientId, leaveOutBad: ticked }), fields);
			return take(contextOf(event), {
				id,
				bytes: await bytesOf(fields),
				leaveOutBad: leaveOutBad === 'on'
			});
		}),
	takeBack: formAction(
		z.object({ ...requested, id: clientId }),
		async (event: RequestEvent, input) => ({
			takenBack: (await takeBack(contextOf(event), input)).rows
		})
	)
});
