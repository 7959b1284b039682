import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { DEFAULT_FACTS, type HazardFacts } from '$core/hazards/facts';
import { EXPIRY_MONTHS, REVIEW_MONTHS } from '$core/hazards/plan-status';
import { plusMonths } from '$core/plan/calendar';
import { anotherApproves } from '$core/people/two-people';
import { approvePlan, clearFlag, listPlaces, planPage } from '$lib/server/hazards/plans';
import { libraryFor } from '$lib/server/hazards/substances';
import { todayOf } from '$lib/server/kernel/context';
import { may } from '$lib/server/kernel/permissions';
import { readyByKind } from '$lib/server/register/items';
import { clientId, contextOf, formAction, page, parse, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const copyOf = z.uuid().nullable().catch(null);

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { site } = event.locals;
		const asOf = todayOf(context);
		const common = {
			places: await listPlaces(context.db),
			mayPlan: may(context.actor.role, 'plan'),
			mayApprove: may(context.actor.role, 'approve plans'),
			ready: await readyByKind(context.db, asOf),
			reviewOn: plusMonths(asOf, REVIEW_MONTHS),
			expiresOn: plusMonths(asOf, EXPIRY_MONTHS)
		};
		/** What the site says of the substances of a plan, for the page to judge with as it is typed. */
		const substancesOf = async (facts: HazardFacts) => {
			const keys = facts.contaminants.flatMap((c) => c.substance ?? []);
			const library = await libraryFor(context.db, keys);
			return keys.flatMap((key) => library.find(key) ?? []);
		};
		if (event.params.id === 'new') {
			const copied = copyOf.parse(event.url.searchParams.get('copy'));
			const source = copied ? await planPage(context, copied) : null;
			const facts = source?.plan.facts ?? {
				...DEFAULT_FACTS,
				ruleSet: site.ruleSet,
				contaminants: []
			};
			return {
				...common,
				substances: await substancesOf(facts),
				plan: {
					id: randomUUID(),
					number: null,
					task: source ? `${source.plan.task}, copy` : '',
					placeId: source?.plan.placeId ?? '',
					version: 0,
					facts,
					by: null,
					copiedFrom: copied
				},
				forAnother: false,
				standing: null
			};
		}
		const found = await planPage(context, parse(clientId, event.params.id));
		const newest = found.editions[0];
		return {
			...common,
			substances: await substancesOf(found.plan.facts),
			plan: { ...found.plan, by: found.by },
			/** Whoever looks wrote it: somebody else approves. */
			forAnother: anotherApproves(context.site, found.plan, context.actor.id),
			standing: {
				state: found.status.outcome,
				reasons: found.status.reasons,
				draftAhead: found.status.draftAhead,
				editions: found.editions.length,
				newest: newest
					? {
							edition: newest.edition.edition,
							by: newest.by,
							reviewOn: newest.edition.reviewOn,
							expiresOn: newest.edition.expiresOn,
							version: newest.edition.version
						}
					: null,
				flags: found.openFlags.map(({ flag, by }) => ({
					id: flag.id,
					text: flag.text,
					by,
					at: flag.raisedAt
				}))
			}
		};
	});

const day = z.iso.date('Choose a day.');

export const actions: Actions = {
	approve: formAction(
		z.object({
			id: clientId,
			version: z.coerce.number().int().min(1, 'Wait until the plan is kept.'),
			reviewOn: day,
			expiresOn: day,
			note: z.string().trim().max(500).default('')
		}),
		async (event: RequestEvent, input) => {
			return {
				approved: await approvePlan(contextOf(event), {
					...input,
					planId: parse(clientId, event.params.id)
				})
			};
		}
	),
	clear: formAction(
		z.object({
			...requested,
			id: clientId,
			why: z.string().trim().min(1, 'Say what was found and what was changed.').max(500)
		}),
		async (event: RequestEvent, input) => {
			await clearFlag(contextOf(event), input);
			return { cleared: true };
		}
	)
};
