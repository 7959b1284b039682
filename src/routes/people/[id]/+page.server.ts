import { ERASE_REASONS } from '$core/people/erase';
import { Refusal } from '$lib/server/kernel/refusal';
import { eraseWearer, keepOwnItem } from '$lib/server/people/own-data';
import { openTestOf } from '$lib/server/people/fit-session';
import { z } from 'zod';
import { FACE_CHANGES } from '$core/people/fit-standing';
import { may } from '$lib/server/kernel/permissions';
import { wearerForm } from '$lib/server/people/form';
import { choicesForWearer, reportChange, saveWearer, wearerPage } from '$lib/server/people/wearers';
import { clientId, contextOf, formAction, page, parse, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const id = parse(clientId, event.params.id);
		return {
			...(await wearerPage(context, id)),
			...(await choicesForWearer(context.db)),
			mayKeep: may(context.actor.role, 'keep wearers'),
			mayTest: may(context.actor.role, 'fit-test'),
			mayErase: may(context.actor.role, 'erase a wearer'),
			open: await openTestOf(context.db, id)
		};
	});

export const actions: Actions = {
	save: formAction(wearerForm, async (event: RequestEvent, input) => {
		await saveWearer(contextOf(event), input);
		return { kept: true };
	}),
	own: formAction(
		z.object({
			...requested,
			tag: z.string().trim().min(1, 'Scan its tag.').max(20),
			own: z.enum(['yes', 'no'])
		}),
		async (event: RequestEvent, { own, ...input }) => {
			await keepOwnItem(contextOf(event), {
				...input,
				wearerId: parse(clientId, event.params.id),
				own: own === 'yes'
			});
			return { kept: true };
		}
	),
	erase: formAction(
		z.object({
			...requested,
			version: z.coerce.number().int(),
			number: z.string().trim().max(20).default(''),
			reason: z.enum(ERASE_REASONS, 'Say why.')
		}),
		async (event: RequestEvent, { number, ...input }) => {
			const context = contextOf(event);
			const id = parse(clientId, event.params.id);
			const { wearer } = await wearerPage(context, id);
			// Typed by hand, so that it is not done to the wrong one.
			if (number !== wearer.number)
				throw new Refusal('invalid', `Type their number, ${wearer.number}.`, 'erase');
			await eraseWearer(context, { ...input, id });
			return { kept: true };
		}
	),
	report: formAction(
		z.object({ id: clientId, what: z.enum(FACE_CHANGES, 'Choose what changed.') }),
		async (event: RequestEvent, input) => {
			await reportChange(contextOf(event), {
				...input,
				wearerId: parse(clientId, event.params.id)
			});
			return { reported: input.what };
		}
	)
};
