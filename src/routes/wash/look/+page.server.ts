import { z } from 'zod';
import { lookOver } from '$lib/server/care/look-over';
import { washLine } from '$lib/server/care/line';
import { requirePermission } from '$lib/server/kernel/permissions';
import { jsonText } from '$lib/server/web/form-fields';
import { clientId, contextOf, formWrite, page } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		requirePermission(context.actor.role, 'wash');
		const { drying, dirty } = await washLine(context);
		return { waits: [...drying, ...dirty.filter(({ cleaned }) => cleaned === 'wiped')] };
	});

const fault = z.object({ station: z.string().max(60), code: z.string().max(12) });

export const actions: Actions = {
	look: formWrite(
		z.object({
			id: clientId,
			tag: z.string().trim().min(1, 'Scan or type a tag.').max(40),
			faults: jsonText('The page sent no answers; load it again.').pipe(z.array(fault).max(12)),
			note: z.string().trim().max(300, 'At most 300 characters.').optional()
		}),
		(event: RequestEvent, form) => lookOver(contextOf(event), form)
	)
};
