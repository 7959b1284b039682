import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import type { Procedure } from '$core/inspection/procedure';
import type { SetSchool } from '$core/site/choices';
import { recordOf } from '$core/data/family-records';
import { NOTED_EVENTS } from '$core/plan/events';
import { sheetOf } from '$core/register/model-sheet';
import { judgeItem } from '$core/readiness/item-state';
import { lotsFitting, openPair, pairTag } from '$lib/server/filters/opening';
import { openedBy } from '$lib/server/filters/opened-by';
import { procedureAt, proceduresFor } from '$lib/server/inspection/procedures';
import { startRun } from '$lib/server/inspection/runs';
import { startPlannedJob } from '$lib/server/faults/planned';
import { may } from '$lib/server/kernel/permissions';
import { noteEvent } from '$lib/server/register/events';
import { itemPage } from '$lib/server/register/item-page';
import { movePart, partsIn, setOf } from '$lib/server/register/sets';
import { breakSeal, sealItem } from '$lib/server/custody/seals';
import { clientId, contextOf, formAction, formWrite, requested } from '$lib/server/web/request';
import { sharedPage } from '$lib/server/web/shared-page';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	sharedPage(event, async (context) => {
		const found = await itemPage(context, event.params.tag);
		const { db } = context;
		const { item, lastRun } = found;
		const record = recordOf(item.family);
		const [offered, inSet, rows, lastProcedure, sealedLots] = await Promise.all([
			proceduresFor(db, item.family),
			setOf(db, item.setId),
			partsIn(db, item.id),
			lastRun ? procedureAt(db, lastRun.procedure, lastRun.procedureVersion) : null,
			record.keepsSealed ? lotsFitting(context, found.model) : []
		]);
		const { ruleSet, setSchool } = event.locals.site;
		return {
			...found,
			lastProcedure,
			inSet,
			sealedLots,
			mayOpen: may(context.actor.role, 'open filters'),
			record,
			takesParts: record.takesParts,
			parts: rows.map((row) => {
				const facts = found.facts.parts?.find((part) => part.tag === row.tag)?.facts;
				return { ...row, state: facts ? judgeItem(facts, ruleSet, found.asOf).outcome : 'held' };
			}),
			takesBenchTest: record.bench !== null,
			takesSealCheck: record.inlets.length > 0,
			procedures: offered
				.filter((p) => isUsual(p) && isOfSchool(p, setSchool))
				.map(({ key, name, school }) => ({ key, name, school: school ?? null })),
			/** Lists beside the usual one, by when they are walked. */
			lists: offered
				.filter((p) => !isUsual(p))
				.map(({ key, name, purpose, levels, steps }) => ({
					key,
					name,
					purpose: purpose ?? 'inspection',
					levels: levels ?? [],
					steps: steps.length
				})),
			pairTag: found.pair ? pairTag(found.pair.pair.number) : null,
			/** What its maker says of its care, line by line. */
			sheet: sheetOf(found.model).filter(({ value }) => value),
			mayRepair: may(context.actor.role, 'repair'),
			mayInspect: may(context.actor.role, 'inspect'),
			maySeal: may(context.actor.role, 'move things'),
			mayKeep: may(context.actor.role, 'keep the register')
		};
	});

/** Whether a list is of the school that the site follows. */
const isOfSchool = ({ school }: Procedure, chosen: SetSchool) =>
	chosen === 'either' || !school || school === chosen;

/** The list that an inspection is by itself, with its schools. */
const isUsual = (p: Procedure) => (p.purpose ?? 'inspection') === 'inspection' && !p.levels;

const part = z.object({
	...requested,
	tag: z.string().trim().min(1, 'Scan or type the tag.').max(40)
});

/** Moves a part onto the item of the page, or off wherever it is. */
const moved = (setOf: (event: RequestEvent) => string | null) =>
	formAction(part, async (event: RequestEvent, input) => {
		await movePart(contextOf(event), { ...input, set: setOf(event) });
		return { moved: input.tag };
	});

export const actions: Actions = {
	putOn: moved((event) => event.params.tag),
	takeOff: moved(() => null),
	happened: formAction(
		z.object({
			id: clientId,
			what: z.enum(NOTED_EVENTS, 'Choose what happened.'),
			note: z.string().trim().max(300).default('')
		}),
		async (event: RequestEvent, input) => {
			await noteEvent(contextOf(event), { ...input, tag: event.params.tag ?? '' });
			return { noted: input.what };
		}
	),
	seal: formWrite(
		z.object({
			...requested,
			number: z.string().trim().min(1, 'Type what stands on the seal.').max(40)
		}),
		(event: RequestEvent, form) =>
			sealItem(contextOf(event), { ...form, tag: event.params.tag ?? '' })
	),
	unseal: formWrite(
		z.object({ ...requested, why: z.string().trim().min(1, 'Say why.').max(200) }),
		(event: RequestEvent, form) =>
			breakSeal(contextOf(event), { ...form, tag: event.params.tag ?? '' })
	),
	service: formAction(
		z.object({ id: clientId, repair: z.string().max(60) }),
		async (event: RequestEvent, input) => {
			const { defectId } = await startPlannedJob(contextOf(event), {
				...input,
				tag: event.params.tag ?? ''
			});
			redirect(303, `/faults/${defectId}`);
		}
	),
	fitSealed: formAction(openedBy, async (event: RequestEvent, form) => {
		const itemTag = event.params.tag ?? '';
		return {
			opened: await openPair(contextOf(event), { ...form, itemTag, planId: null })
		};
	}),
	inspect: formAction(
		z.object({ id: clientId, procedure: z.string().max(60).optional() }),
		async (event: RequestEvent, form) => {
			const { id } = await startRun(contextOf(event), { ...form, tag: event.params.tag });
			redirect(303, `/runs/${id}`);
		}
	)
};
