import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { recordOf } from '$core/data/family-records';
import { FIT_METHODS } from '$core/people/fit-standing';
import { todayOf } from '$lib/server/kernel/context';
import { requirePermission } from '$lib/server/kernel/permissions';
import { Refusal } from '$lib/server/kernel/refusal';
import { protocolsHere, saveFitTest } from '$lib/server/people/fit-tests';
import { wearerPage } from '$lib/server/people/wearers';
import { listModels } from '$lib/server/register/models';
import { decimal, ticked } from '$lib/server/web/form-fields';
import { clientId, contextOf, formAction, page, parse } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		requirePermission(context.actor.role, 'fit-test');
		const { wearer } = await wearerPage(context, parse(clientId, event.params.id));
		const models = await listModels(context.db);
		return {
			wearer,
			asOf: todayOf(context),
			protocols: protocolsHere(context),
			ruleSet: context.site.ruleSet,
			models: models
				.filter(({ model }) => recordOf(model.family).fit !== null && !model.withdrawnOn)
				.map(({ model }) => ({
					id: model.id,
					name: model.name,
					mask: recordOf(model.family).fit
				}))
		};
	});

const form = z.object({
	id: clientId,
	modelId: z.string().max(60),
	size: z.string().trim().min(1, 'Say which size was worn.').max(40),
	method: z.enum(FIT_METHODS, 'Choose how it was tested.'),
	protocol: z
		.string()
		.max(40)
		.default('')
		.transform((key) => key || null),
	agent: z
		.string()
		.max(20)
		.default('')
		.transform((key) => key || null),
	keys: z.array(z.string().max(20)).max(20).default([]),
	factors: z.array(z.string().trim().max(20)).max(20).default([]),
	noticedNothing: ticked,
	worn: z.string().trim().max(120).default(''),
	testedOn: z.iso.date('Type the day of the test.'),
	tester: z.string().trim().max(80).default('')
});

export const actions: Actions = {
	default: formAction(
		form,
		async (event: RequestEvent, { keys, factors, noticedNothing, ...input }) => {
			const wearerId = parse(clientId, event.params.id);
			const typed = keys.flatMap((key, i) => {
				const text = factors[i] ?? '';
				if (text === '') return [];
				const value = decimal(text);
				if (!Number.isFinite(value))
					throw new Refusal('invalid', `“${text}” is no fit factor.`, 'factors');
				return [[key, value] as const];
			});
			await saveFitTest(contextOf(event), {
				...input,
				wearerId,
				factors: Object.fromEntries(typed),
				noticedNothing: noticedNothing === 'on'
			});
			redirect(303, `/people/${wearerId}`);
		}
	)
};
