import { z } from 'zod';
import { may } from '$lib/server/context';
import { optionalNumber } from '$lib/server/form-fields';
import { receiveLot, saveModel, store } from '$lib/server/filter-store';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		return {
			...(await store(context, event.locals.site)),
			mayKeep: may(context.actor.role, 'keep the filter store')
		};
	});

const code = z
	.string()
	.trim()
	.max(40)
	.default('')
	.transform((text) => text || null);
const positive = (what: string) =>
	optionalNumber(
		() => `${what} must be a number above zero.`,
		(value) => value > 0 && Number.isFinite(value)
	);

const modelForm = z.object({
	id: clientId,
	version: z.coerce.number().int().min(0),
	maker: z.string().trim().min(1, 'Name the maker.').max(60),
	name: z.string().trim().min(1, 'Name the filter.').max(60),
	mount: z.string().trim().min(1, 'Name its mount, as on the masks.').max(40),
	codeEn: code,
	codeUs: code,
	massG: z.coerce
		.number('Type the mass in grams.')
		.int('Whole grams.')
		.min(1, 'The mass must be above zero.')
		.max(2000, 'More than 2 kg hangs on no mask.'),
	openedMonths: positive('Months after opening'),
	reorderLevel: z.coerce.number('Type a number.').int().min(0).max(10_000),
	carbonMassG: positive('Carbon'),
	microporeVolumeCm3PerG: positive('Micropore volume'),
	packedDensityGPerCm3: positive('Packed density'),
	faceAreaCm2: positive('Face area')
});

export const actions: Actions = {
	model: (event) =>
		action(async () => {
			const form = parse(modelForm, await formBody(event.request));
			const { carbonMassG, microporeVolumeCm3PerG, packedDensityGPerCm3, faceAreaCm2, ...rest } =
				form;
			const bed = Object.fromEntries(
				Object.entries({
					carbonMassG,
					microporeVolumeCm3PerG,
					packedDensityGPerCm3,
					faceAreaCm2
				}).filter(([, v]) => v !== undefined)
			);
			await saveModel(contextOf(event), {
				...rest,
				openedMonths: rest.openedMonths ?? null,
				bed: Object.keys(bed).length ? bed : null
			});
			return { saved: rest.name };
		}),
	receive: (event) =>
		action(async () => {
			const form = parse(
				z.object({
					id: clientId,
					modelId: z.uuid('Choose the filter.'),
					lot: z.string().trim().min(1, 'Type the lot from the pack.').max(30),
					useBy: z.iso.date('Type the use-by date of the pack.'),
					quantity: z.coerce
						.number('How many came?')
						.int('Whole filters.')
						.min(1, 'At least one.')
						.max(10_000),
					location: z.string().trim().max(40).default('')
				}),
				await formBody(event.request)
			);
			await receiveLot(contextOf(event), event.locals.site, form);
			return { received: `${form.quantity} of lot ${form.lot}` };
		})
};
