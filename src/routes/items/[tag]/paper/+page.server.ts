import { z } from 'zod';
import { keepPaper, paperPage } from '$lib/server/inspection/paper';
import { todayOf } from '$lib/server/kernel/context';
import { clientId, contextOf, formAction, page } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { searchParams } = event.url;
		const version = Number(searchParams.get('version')) || null;
		return {
			...(await paperPage(context, event.params.tag, searchParams.get('procedure'), version)),
			today: todayOf(context),
			me: context.actor.id
		};
	});

const typed = z
	.string()
	.max(20_000)
	.transform((text, check) => {
		try {
			return JSON.parse(text) as unknown;
		} catch {
			check.addIssue('What was typed did not arrive whole. Send it again.');
			return z.NEVER;
		}
	})
	.pipe(z.record(z.string().max(60), z.string().max(500)));

export const actions: Actions = {
	default: formAction(
		z.object({
			id: clientId,
			procedure: z.string().max(60),
			version: z.coerce.number().int().min(1).max(1_000_000),
			day: z.iso.date('Type the day on the sheet.'),
			doneBy: z.string().min(1, 'Choose who did it.').max(60),
			second: z
				.string()
				.max(60)
				.transform((text) => text || null)
				.default(null),
			typed
		}),
		async (event: RequestEvent, input) => {
			const { outcome } = await keepPaper(contextOf(event), { ...input, tag: event.params.tag });
			return { kept: input.id, outcome };
		}
	)
};
