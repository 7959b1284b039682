import { z } from 'zod';
import { STORE_PARTS } from '$core/service/parts-store';
import { disposeParts, partsStore, receiveParts, setPartLevel } from '$lib/server/faults/parts';
import { todayOf } from '$lib/server/kernel/context';
import { may } from '$lib/server/kernel/permissions';
import { importParts, lastImports, previewStore } from '$lib/server/register/tables';
import { clientId, contextOf, formAction, page, requested } from '$lib/server/web/request';
import { tableActions } from '$lib/server/web/table-actions';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		return {
			asOf: todayOf(context),
			parts: await partsStore(context),
			names: Object.entries(STORE_PARTS).map(([key, { name, consumable }]) => ({
				key,
				name,
				consumable
			})),
			last: await lastImports(context.db, 'parts'),
			mayKeep: may(context.actor.role, 'keep the stores')
		};
	});

const count = (least: number) =>
	z.coerce
		.number('Type a number.')
		.int('A whole number.')
		.min(least, `${least} at least.`)
		.max(100_000, '100000 at most.');
const MOST_WORDS = 300;

export const actions: Actions = {
	...tableActions((context, bytes) => previewStore(context, 'parts', bytes), importParts),
	receive: formAction(
		z.object({
			id: clientId,
			part: z.string().min(1, 'Choose what came.').max(60),
			lot: z.string().trim().min(1, 'Type the lot as it is printed.').max(40),
			useBy: z
				.literal('')
				.transform(() => null)
				.or(z.iso.date('Type the use-by date of the pack, or leave it empty.'))
				.default(null),
			quantity: count(1),
			location: z.string().trim().max(60).default(''),
			costEach: z
				.literal('')
				.transform(() => null)
				.or(
					z.coerce
						.number('Type a price.')
						.min(0, 'Zero or more.')
						.max(1_000_000, 'That is too much.')
				)
				.default(null)
		}),
		async (event: RequestEvent, input) => {
			await receiveParts(contextOf(event), input);
			return { received: `${STORE_PARTS[input.part]?.name ?? ''}, lot ${input.lot}` };
		}
	),
	level: formAction(
		z.object({ ...requested, part: z.string().max(60), level: count(0) }),
		async (event: RequestEvent, input) => {
			await setPartLevel(contextOf(event), input);
			return { levelled: STORE_PARTS[input.part]?.name ?? '' };
		}
	),
	dispose: formAction(
		z.object({ ...requested, lotId: clientId, seen: count(1), why: z.string().max(MOST_WORDS) }),
		async (event: RequestEvent, input) => {
			await disposeParts(contextOf(event), input);
			return { disposed: true };
		}
	)
};
