import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { FIT_PASS, MOST_FACTOR } from '$core/fit/fit-factor';
import { fitUntil } from '$core/people/fit-standing';
import { COUNTER_FAULTS } from '$lib/server/instruments/simulated/fit-counter';
import { may } from '$lib/server/kernel/permissions';
import { behaveSimulated } from '$lib/server/people/fit-counters';
import { moveFit, stopFit } from '$lib/server/people/fit-live';
import { sessionPage } from '$lib/server/people/fit-session';
import { beginTasting, noticed, noticedNothing, screened } from '$lib/server/people/fit-taste';
import { signSession } from '$lib/server/people/fit-tests';
import { newFilters, offerFilters } from '$lib/server/people/fit-filters';
import { config } from '$lib/server/web/config';
import { clientId, contextOf, formAction, page, parse, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const found = await sessionPage(context, parse(clientId, event.params.id));
		const { session } = found;
		return {
			...found,
			until: found.signed ? fitUntil(found.signed.testedOn) : null,
			filtersId: crypto.randomUUID(),
			limit: FIT_PASS[session.ruleSet][session.mask],
			most: MOST_FACTOR,
			mayTest: may(context.actor.role, 'fit-test'),
			faults: config().GREVAN_DEMO_PASSWORD === undefined ? [] : COUNTER_FAULTS,
			filters: found.signed?.passed ? await offerFilters(context, session.itemId) : null
		};
	});

const idOf = (event: RequestEvent) => parse(clientId, event.params.id);
const counters = () => config().GREVAN_FIT_COUNTER;

export const actions: Actions = {
	move: formAction(
		z.object({ ...requested, exercise: z.string().max(20), how: z.enum(['again', 'later']) }),
		(event: RequestEvent, input) =>
			moveFit(contextOf(event), counters(), { ...input, id: idOf(event) })
	),
	stop: formAction(z.object(requested), (event: RequestEvent, input) =>
		stopFit(contextOf(event), counters(), { ...input, id: idOf(event) })
	),
	behave: formAction(
		z.object({ fault: z.enum(COUNTER_FAULTS) }),
		(event: RequestEvent, { fault }) =>
			behaveSimulated(contextOf(event).db, counters(), idOf(event), fault)
	),
	screened: formAction(
		z.object({
			...requested,
			squeezes: z
				.string()
				.max(10)
				.transform((text) => (text === 'none' ? null : Number(text)))
		}),
		(event: RequestEvent, input) => screened(contextOf(event), { ...input, id: idOf(event) })
	),
	begin: formAction(z.object(requested), (event: RequestEvent, input) =>
		beginTasting(contextOf(event), { ...input, id: idOf(event) })
	),
	noticed: formAction(z.object(requested), (event: RequestEvent, input) =>
		noticed(contextOf(event), { ...input, id: idOf(event) })
	),
	nothing: formAction(z.object(requested), (event: RequestEvent, input) =>
		noticedNothing(contextOf(event), { ...input, id: idOf(event) })
	),
	sign: formAction(
		z.object({ ...requested, then: z.enum(['stay', 'again']).catch('stay') }),
		async (event: RequestEvent, { then, ...input }) => {
			const context = contextOf(event);
			const id = idOf(event);
			await signSession(context, { ...input, id });
			if (then === 'stay') return { signed: true };
			const { session, model, tag } = await sessionPage(context, id);
			const params = new URLSearchParams({ model, size: session.size, again: id, tag: tag ?? '' });
			redirect(303, `/people/${session.wearerId}/fit?${params}`);
		}
	),
	filters: formAction(
		z.object({
			id: clientId,
			lotId: z.uuid('Choose the filters.'),
			initials: z.string().trim().min(1, 'Your initials.').max(4)
		}),
		async (event: RequestEvent, input) => ({
			opened: await newFilters(contextOf(event), { ...input, sessionId: idOf(event) })
		})
	)
};
