import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { recordOf } from '$core/data/family-records';
import { FIT_PASS, FIT_MASKS } from '$core/fit/fit-factor';
import { FIT_METHODS } from '$core/people/fit-standing';
import { COUNTER_FAULTS } from '$lib/server/instruments/simulated/fit-counter';
import { requirePermission } from '$lib/server/kernel/permissions';
import { fitCounters } from '$lib/server/people/fit-counters';
import { startFit } from '$lib/server/people/fit-live';
import { protocolsHere } from '$lib/server/people/fit-tests';
import { wearerPage } from '$lib/server/people/wearers';
import { faceOf, FACES } from '$lib/server/people/simulated-face';
import { modelsInUse } from '$lib/server/people/fit-session';
import { config } from '$lib/server/web/config';
import { clientId, contextOf, formAction, page, parse } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const asked = z.object({
	model: z.string().max(60).catch(''),
	size: z.string().max(40).catch(''),
	tag: z.string().max(20).catch(''),
	again: z.uuid().nullable().catch(null)
});

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		requirePermission(context.actor.role, 'fit-test');
		const { wearer } = await wearerPage(context, parse(clientId, event.params.id));
		const counters = config().GREVAN_FIT_COUNTER;
		const [models, found] = await Promise.all([
			modelsInUse(context.db),
			fitCounters(context.db, counters)
		]);
		return {
			wearer,
			asked: parse(asked, Object.fromEntries(event.url.searchParams)),
			ruleSet: context.site.ruleSet,
			protocols: protocolsHere(context),
			counters: found,
			faces: config().GREVAN_DEMO_PASSWORD === undefined ? [] : Object.keys(FACES),
			faults: COUNTER_FAULTS,
			models: models.flatMap(({ family, ...model }) => {
				const mask = recordOf(family).fit;
				return mask ? [{ ...model, mask }] : [];
			})
		};
	});

const empty = z
	.string()
	.max(60)
	.default('')
	.transform((text) => text || null);
const form = z.object({
	id: clientId,
	number: z.string().trim().max(20).default(''),
	tag: z.string().trim().max(20).default(''),
	modelId: z.string().max(60).default(''),
	size: z.string().trim().max(40).default(''),
	method: z.enum(FIT_METHODS, 'Choose how it is tested.'),
	protocol: empty,
	agent: empty,
	worn: z.string().trim().max(120).default(''),
	before: z.array(z.string().max(20)).max(20).default([]),
	againAfter: empty,
	counter: z
		.string()
		.max(4)
		.default('')
		.transform((text) => (text ? Number(text) : undefined)),
	mask: z.enum(FIT_MASKS).catch('half'),
	face: z.string().max(40).default(''),
	fault: z.enum(COUNTER_FAULTS).catch('none'),
	speed: z.coerce.number().min(1).max(200).catch(1)
});

export const actions: Actions = {
	default: formAction(form, async (event: RequestEvent, { face, fault, speed, mask, ...input }) => {
		const context = contextOf(event);
		const { GREVAN_FIT_COUNTER, GREVAN_DEMO_PASSWORD } = config();
		await startFit(context, GREVAN_FIT_COUNTER, {
			...input,
			wearerId: parse(clientId, event.params.id),
			...(GREVAN_DEMO_PASSWORD !== undefined && face
				? { face: faceOf(face, FIT_PASS[context.site.ruleSet][mask], fault, speed) }
				: {})
		});
		redirect(303, `/people/fit-tests/${input.id}`);
	})
};
