import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { FAMILIES } from '$core/data/families';
import { standsThere } from '$lib/server/access/pins';
import { beginExam } from '$lib/server/drill/sessions';
import { doorContext, entranceOf } from '$lib/server/web/entrance';
import { clientId, contextOf, formAction } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = () => ({
	families: FAMILIES.map(({ family, plural }) => ({ family, plural }))
});

export const actions: Actions = {
	default: formAction(
		z.object({
			id: clientId,
			family: z.string().max(60),
			level: z
				.enum(['2', '3'], 'Choose how hard.')
				.transform((value) => (value === '3' ? (3 as const) : (2 as const))),
			who: z.string().trim().min(1, 'Scan your card, or type your initials.').max(40),
			pin: z.string().trim().min(1, 'Type your PIN.').max(20)
		}),
		async (event: RequestEvent, { id, family, level, who, pin }) => {
			const { client } = entranceOf(event);
			const supervisor = await standsThere(event.locals.auth, doorContext(event), client, {
				who,
				pin
			});
			await beginExam(contextOf(event), { id, family, level, supervisor });
			redirect(303, `/drill/exam/${id}`);
		}
	)
};
