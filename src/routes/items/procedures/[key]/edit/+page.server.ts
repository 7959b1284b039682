import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { airwayOf } from '$core/data/families';
import { REJECT_CODES } from '$core/data/reject-codes';
import type { Step } from '$core/inspection/procedure';
import { editionsOf, procedureAt, saveEdition } from '$lib/server/inspection/procedures';
import { may } from '$lib/server/kernel/permissions';
import { Refusal } from '$lib/server/kernel/refusal';
import { jsonText } from '$lib/server/web/form-fields';
import { contextOf, formAction, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const [newest] = await editionsOf(context.db, event.params.key);
		if (!newest) throw new Refusal('not found', 'There is no such procedure.');
		return {
			procedure: newest.procedure,
			name: newest.name,
			stations: airwayOf(newest.procedure.family).stations,
			codes: REJECT_CODES.map(({ code, name }) => ({ code, name })),
			mayEdit: may(context.actor.role, 'edit procedures')
		};
	});

const words = z.string().max(2000);
const step = z.object({
	key: z.string().max(60),
	station: z.string().max(60),
	title: words,
	action: words,
	good: words,
	why: words,
	rejects: z.array(z.string().max(12)).max(40),
	kind: z.enum(['look', 'feel', 'confirm', 'reading', 'hold']),
	ifFitted: z.boolean().optional(),
	secondPerson: z.boolean().optional()
});
const body = z.object({
	...requested,
	from: z.coerce.number().int(),
	name: z.string().max(120, 'At most 120 characters.'),
	reason: z.string().max(300, 'At most 300 characters.'),
	steps: jsonText('The steps did not arrive whole; send again.', 400_000).pipe(
		z.array(step).min(1, 'A procedure has at least one step.').max(120)
	)
});

export const actions: Actions = {
	default: formAction(body, async (event: RequestEvent, { steps, ...rest }) => {
		const context = contextOf(event);
		const { key } = event.params;
		const before = await procedureAt(context.db, key, rest.from);
		// How a reading is judged belongs to the step and is not edited on the page.
		const whole = steps.map((s): Step => {
			const reading = before.steps.find((b) => b.key === s.key)?.reading;
			return { ...s, ...(reading ? { reading } : {}) };
		});
		await saveEdition(context, { ...rest, key, steps: whole });
		redirect(303, `/items/procedures/${key}`);
	})
};
