import { z } from 'zod';
import { FACE_CHANGES } from '$core/people/fit-standing';
import { may } from '$lib/server/kernel/permissions';
import { wearerForm } from '$lib/server/people/form';
import { choicesForWearer, reportChange, saveWearer, wearerPage } from '$lib/server/people/wearers';
import { clientId, contextOf, formAction, page, parse } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const id = parse(clientId, event.params.id);
		return {
			...(await wearerPage(context, id)),
			...(await choicesForWearer(context.db)),
			mayKeep: may(context.actor.role, 'keep wearers'),
			mayTest: may(context.actor.role, 'fit-test')
		};
	});

export const actions: Actions = {
	save: formAction(wearerForm, async (event: RequestEvent, input) => {
		await saveWearer(contextOf(event), input);
		return { kept: true };
	}),
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
