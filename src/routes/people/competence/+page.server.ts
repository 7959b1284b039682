import { z } from 'zod';
import { FAMILIES } from '$core/data/families';
import { JOBS } from '$core/people/competence';
import { proposedBy } from '$lib/server/drill/trainer';
import { modelsInUse } from '$lib/server/people/fit-session';
import { openAccounts } from '$lib/server/people/wearers';
import { todayOf } from '$lib/server/kernel/context';
import { may } from '$lib/server/kernel/permissions';
import {
	endAuthorisation,
	giveAuthorisation,
	listAuthorisations
} from '$lib/server/people/authorisations';
import { clientId, contextOf, formAction, page, parse, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const exam = event.url.searchParams.get('exam');
		const [given, accounts, models] = await Promise.all([
			listAuthorisations(context),
			openAccounts(context.db),
			modelsInUse(context.db)
		]);
		return {
			given,
			accounts,
			models,
			jobs: JOBS,
			families: FAMILIES.map(({ family, plural }) => ({ family, plural })),
			asOf: todayOf(context),
			proposed: await proposedBy(context, exam ? parse(clientId, exam) : null),
			mayKeep: may(context.actor.role, 'keep competence')
		};
	});

const day = z.iso.date('Type the day.');
export const actions: Actions = {
	give: formAction(
		z.object({
			id: clientId,
			userId: z.string().min(1, 'Choose whose account it is for.').max(60),
			job: z.enum(JOBS, 'Choose the job.'),
			families: z.array(z.string().max(40)).max(40).default([]),
			modelIds: z.array(z.uuid()).max(100).default([]),
			from: day,
			until: z
				.literal('')
				.transform(() => null)
				.or(day)
				.default(null),
			evidence: z
				.string()
				.trim()
				.min(1, 'Say what it rests on: a course, a certificate, who saw the work.')
				.max(200)
		}),
		async (event: RequestEvent, input) => {
			await giveAuthorisation(contextOf(event), input);
			return { given: true };
		}
	),
	end: formAction(
		z.object({ ...requested, id: clientId, why: z.string().trim().max(200).default('') }),
		async (event: RequestEvent, input) => {
			await endAuthorisation(contextOf(event), input);
			return { ended: true };
		}
	)
};
