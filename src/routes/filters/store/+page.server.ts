import { z } from 'zod';
import { receiveLot, saveModel, store } from '$lib/server/filters/store';
import { FILTER_ROLES } from '$core/filters/stock';
import { may } from '$lib/server/kernel/permissions';
import { optionalNumber } from '$lib/server/web/form-fields';
import { longForm } from '$lib/server/web/long-form';
import { clientId, contextOf, formAction, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const kept = await store(context);
		return {
			...kept,
			filled: Object.fromEntries(
				[undefined, ...kept.models.map(({ model }) => model)].map((model) => [
					model?.id ?? 'new',
					modelForm.filled(
						{ reorderLevel: 0, ...model, ...model?.bed },
						`${model?.id ?? 'new'}-${model?.version ?? 0}`
					)
				])
			),
			mayKeep: may(context.actor.role, 'keep the stores')
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

const modelForm = longForm(
	z.object({
		...requested,
		id: clientId,
		version: z.coerce.number().int().min(0),
		maker: z.string().trim().min(1, 'Name the maker.').max(60),
		name: z.string().trim().min(1, 'Name the filter.').max(60),
		role: z.enum(FILTER_ROLES, 'Choose what it is.').default('filter'),
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
	})
);

export const actions: Actions = {
	model: modelForm.action(async (event: RequestEvent, input) => {
		const { carbonMassG, microporeVolumeCm3PerG, packedDensityGPerCm3, faceAreaCm2, ...rest } =
			input;
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
	receive: formAction(
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
		async (event: RequestEvent, form) => {
			await receiveLot(contextOf(event), form);
			return { received: `${form.quantity} of lot ${form.lot}` };
		}
	)
};
