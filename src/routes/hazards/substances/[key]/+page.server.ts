import { redirect } from '@sveltejs/kit';
import { emptyDraft } from '$core/substances/csv';
import { originLine } from '$core/verdict';
import {
	originOf,
	SUBSTANCE_ORIGINS,
	TARGET_ORGANS,
	type Substance,
	type SubstanceField
} from '$core/data/substance';
import { may } from '$lib/server/context';
import { action, contextOf, formBody, page, parse } from '$lib/server/request';
import { editOf, substanceForm } from '$lib/server/substance-form';
import { saveSubstance, substancePage } from '$lib/server/substances';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const mayEdit = may(context.actor.role, 'edit substances');
		if (event.params.key === 'new')
			return {
				isNew: true,
				substance: { ...emptyDraft(), key: '', organic: true } as Substance,
				own: true,
				version: 0,
				changes: [],
				disagreements: [],
				origins: {} as Record<string, string>,
				organs: TARGET_ORGANS,
				mayEdit
			};
		const found = await substancePage(context.db, event.params.key);
		return {
			isNew: false,
			substance: found.substance,
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
	save: async (event) => {
		const key = event.params.key === 'new' ? null : event.params.key;
		const result = await action(async () => {
			const form = parse(substanceForm, await formBody(event.request));
			const saved = await saveSubstance(contextOf(event), {
				id: form.id,
				key,
				edit: editOf(form),
				why: form.why,
				version: form.version
			});
			return { saved };
		});
		if (!key && 'saved' in result) redirect(303, `/hazards/substances/${String(result.saved)}`);
		return result;
	}
};
