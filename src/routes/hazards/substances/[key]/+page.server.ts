import { redirect } from '@sveltejs/kit';
import {
	originOf,
	type Substance,
	SUBSTANCE_ORIGINS,
	type SubstanceField,
	TARGET_ORGANS
} from '$core/data/substance';
import { emptyDraft } from '$core/substances/csv';
import { originLine } from '$core/verdict';
import { editOf, substanceFields, typedOf } from '$lib/server/hazards/substance-form';
import { saveSubstance, substancePage } from '$lib/server/hazards/substances';
import { may } from '$lib/server/kernel/permissions';
import { longForm } from '$lib/server/web/long-form';
import { contextOf, page } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const substanceForm = longForm(substanceFields);

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const mayEdit = may(context.actor.role, 'edit substances');
		const form = (substance: Substance, version: number) =>
			substanceForm.filled({ ...typedOf(substance), version }, `${event.params.key}-${version}`);
		if (event.params.key === 'new') {
			const substance = { ...emptyDraft(), key: '', organic: true } as Substance;
			return {
				isNew: true,
				substance,
				filled: form(substance, 0),
				own: true,
				version: 0,
				changes: [],
				disagreements: [],
				origins: {} as Record<string, string>,
				organs: TARGET_ORGANS,
				mayEdit
			};
		}
		const found = await substancePage(context.db, event.params.key);
		return {
			isNew: false,
			substance: found.substance,
			filled: form(found.substance, found.version),
			own: found.own,
			version: found.version,
			disagreements: found.disagreements,
			origins: Object.fromEntries(
				(Object.keys(SUBSTANCE_ORIGINS) as SubstanceField[]).map((field) => {
					const origin = originOf(found.substance, field);
					return [field, origin ? originLine(origin) : ''];
				})
			),
			changes: found.changes.map(({ change, by }) => ({
				id: change.id,
				field: change.field,
				before: change.before,
				after: change.after,
				why: change.why,
				by,
				at: change.changedAt
			})),
			organs: TARGET_ORGANS,
			mayEdit
		};
	});

export const actions: Actions = {
	save: substanceForm.action(async (event: RequestEvent, input) => {
		const isNew = event.params.key === 'new';
		const saved = await saveSubstance(contextOf(event), {
			id: input.requestId,
			key: isNew ? null : event.params.key,
			edit: editOf(input),
			why: input.why,
			version: input.version
		});
		if (isNew) redirect(303, `/hazards/substances/${saved}`);
		return saved;
	})
};
