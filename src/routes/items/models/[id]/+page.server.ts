import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { BLOCKING, type Inlet } from '$core/data/blocking';
import { FAMILIES } from '$core/data/families';
import { recordOf } from '$core/data/family-records';
import { may } from '$lib/server/kernel/permissions';
import { Refusal } from '$lib/server/kernel/refusal';
import { listModels, saveItemModel, withdrawModel } from '$lib/server/register/models';
import { optionalNumber } from '$lib/server/web/form-fields';
import { longForm } from '$lib/server/web/long-form';
import { clientId, contextOf, formAction, page, parse, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { id } = event.params;
		const found =
			id === 'new' ? null : (await listModels(context.db)).find(({ model }) => model.id === id);
		if (found === undefined) throw new Refusal('not found', 'There is no such model.');
		const model = found?.model ?? null;
		return {
			model,
			filled: form.filled(
				{
					family: FAMILIES[0]?.family,
					...model,
					...model?.donning,
					ways: model?.donning?.ways?.[0] ?? ''
				},
				id
			),
			inUse: found?.inUse ?? 0,
			families: FAMILIES.map(({ family, name, stations }) => ({
				family,
				name,
				stations: stations.map((s) => ({ key: s.key, name: s.name })),
				inlets: recordOf(family).inlets.map((key) => ({ key, name: BLOCKING[key].name })),
				carries: recordOf(family).carries !== null,
				takesParts: recordOf(family).takesParts
			})),
			mayEdit: may(context.actor.role, 'edit procedures')
		};
	});

const bar = (least: number, most: number) =>
	optionalNumber(
		() => `A number from ${least} to ${most} bar, or empty.`,
		(value) => value >= least && value <= most
	).transform((value) => value ?? null);
const form = longForm(
	z.object({
		...requested,
		id: clientId,
		family: z.string().max(40),
		maker: z.string().trim().min(1, 'Name the maker.').max(80),
		name: z.string().trim().min(1, 'Name the model.').max(80),
		mount: z.string().trim().max(80),
		ratedBar: bar(1, 400),
		holdDropBar: bar(0.1, 10),
		straps: z
			.string()
			.max(2000)
			.default('')
			.transform((text) => text.split('\n').flatMap((line) => line.trim() || [])),
		inlet: z
			.literal('')
			.transform(() => null)
			.or(z.enum(Object.keys(BLOCKING) as [Inlet, ...Inlet[]], 'Choose how its inlet is blocked.'))
			.default(null),
		holdSeconds: optionalNumber(
			() => 'A number from 3 to 60 s, or empty.',
			(value) => value >= 3 && value <= 60
		).transform((value) => value ?? null),
		ways: z.enum(['', 'in', 'out']).default(''),
		filterCount: z.coerce
			.number('0, 1 or 2 filters.')
			.int('0, 1 or 2 filters.')
			.min(0, '0, 1 or 2 filters.')
			.max(2, '0, 1 or 2 filters.')
			.default(2),
		approved: z
			.string()
			.max(4000)
			.default('')
			.transform((text) => text.split('\n').flatMap((line) => line.trim() || [])),
		stations: z.array(z.string().max(40)).max(100).default([]),
		lines: z.array(z.string().trim().max(300)).max(100).default([])
	})
);

export const actions: Actions = {
	save: form.action(async (event: RequestEvent, input) => {
		const { stations, lines, straps, inlet, holdSeconds, ways, ...model } = input;
		const makerLines = lines.flatMap((text, i) =>
			text ? [{ station: stations[i] ?? '', text }] : []
		);
		const said = straps.length > 0 || inlet !== null || holdSeconds !== null || ways !== '';
		const donning = said ? { straps, inlet, holdSeconds, ...(ways ? { ways: [ways] } : {}) } : null;
		await saveItemModel(contextOf(event), { ...model, donning, makerLines });
		redirect(303, '/items/models');
	}),
	withdraw: formAction(
		z.object({ ...requested, why: z.string().max(300) }),
		async (event: RequestEvent, input) => {
			const id = parse(clientId, event.params.id);
			return withdrawModel(contextOf(event), { ...input, id });
		}
	)
};
