import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { INLETS } from '$core/data/blocking';
import { judgeItem } from '$core/readiness/item-state';
import { TESTED_FAMILIES } from '$lib/server/bench';
import { may } from '$lib/server/context';
import { startRun } from '$lib/server/inspections';
import { itemPage } from '$lib/server/items';
import { pairTag } from '$lib/server/filters';
import { procedureAt, proceduresFor } from '$lib/server/procedures';
import { movePart, partsIn, setOf, takesParts } from '$lib/server/sets';
import { trendsOf } from '$lib/server/trends';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const found = await itemPage(context, event.locals.site, event.params.tag);
		const { db } = context;
		const { item, lastRun } = found;
		const [offered, inSet, rows, trends, lastProcedure] = await Promise.all([
			proceduresFor(db, item.family),
			setOf(db, item.setId),
			partsIn(db, item.id),
			trendsOf(db, event.locals.site.timeZone, [
				{ id: item.id, holdDropBar: found.model.holdDropBar }
			]),
			lastRun ? procedureAt(db, lastRun.procedure, lastRun.procedureVersion) : null
		]);
		const { ruleSet } = event.locals.site;
		return {
			...found,
			lastProcedure,
			inSet,
			trends: trends.get(item.id) ?? [],
			takesParts: takesParts(item.family),
			parts: rows.map((row) => {
				const facts = found.facts.parts?.find((part) => part.tag === row.tag)?.facts;
				return { ...row, state: facts ? judgeItem(facts, ruleSet, found.asOf).outcome : 'held' };
			}),
			takesBenchTest: TESTED_FAMILIES.includes(item.family),
			takesSealCheck: item.family in INLETS,
			donning: offered.find((p) => p.purpose === 'donning')?.key ?? null,
			procedures: offered
				.filter((p) => p.purpose !== 'donning')
				.map(({ key, name, school }) => ({ key, name, school: school ?? null })),
			pairTag: found.pair ? pairTag(found.pair.pair.number) : null,
			mayInspect: may(context.actor.role, 'inspect'),
			mayRelease: may(context.actor.role, 'release'),
			mayKeep: may(context.actor.role, 'keep the register')
		};
	});

const part = z.object({ tag: z.string().trim().min(1, 'Scan or type the tag.').max(40) });

/** Moves a part onto the item of the page, or off wherever it is. */
const moved = (event: RequestEvent, set: string | null) =>
	action(async () => {
		const { tag } = parse(part, await formBody(event.request));
		await movePart(contextOf(event), event.locals.site, { tag, set });
		return { moved: tag };
	});

export const actions: Actions = {
	putOn: (event) => moved(event, event.params.tag),
	takeOff: (event) => moved(event, null),
	inspect: async (event) => {
		const result = await action(async () => {
			const form = parse(
				z.object({ id: clientId, procedure: z.string().max(60).optional() }),
				await formBody(event.request)
			);
			return startRun(contextOf(event), { ...form, tag: event.params.tag });
		});
		if ('status' in result) return result;
		redirect(303, `/runs/${result.id}`);
	}
};
