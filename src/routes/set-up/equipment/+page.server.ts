import { z } from 'zod';
import { requirePermission } from '$lib/server/kernel/permissions';
import { listModels } from '$lib/server/register/models';
import { takeTemplates } from '$lib/server/register/templates';
import { jsonText } from '$lib/server/web/form-fields';
import { contextOf, formAction, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor } = contextOf(event);
		requirePermission(actor.role, 'edit procedures');
		const models = await listModels(db);
		return {
			models: models.map(({ model: { id, name, maker, family } }) => ({ id, name, maker, family }))
		};
	});

const taken = z
	.array(
		z.object({
			template: z.string().max(40),
			name: z.string().max(60, 'A name: at most 60 characters.'),
			maker: z.string().max(60, 'A maker: at most 60 characters.')
		})
	)
	.max(60);

export const actions: Actions = {
	default: formAction(
		z.object({
			...requested,
			taken: jsonText('The choice did not arrive whole; do it again.').pipe(taken)
		}),
		async (event: RequestEvent, input) => takeTemplates(contextOf(event), input)
	)
};
