import { z } from 'zod';
import { handOutItems } from '$lib/server/handout/hand-out';
import { kitOutTeam } from '$lib/server/handout/kit-out';
import { chooseFrom } from '$lib/server/handout/scan';
import { listPlaces } from '$lib/server/hazards/plans';
import { requirePermission } from '$lib/server/kernel/permissions';
import { jsonText } from '$lib/server/web/form-fields';
import { clientId, contextOf, formWrite, page } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const MOST = 40;
const ids = z.array(z.uuid()).max(MOST);
/** The team stands in the address: what was put together can be shown to somebody. */
const asked = z.object({
	who: z
		.string()
		.max(2000)
		.default('')
		.transform((text) => text.split(',').filter(Boolean))
		.pipe(ids),
	plan: z.uuid().or(z.literal('')).default(''),
	minutes: z.coerce.number().int().min(1).max(1440).optional().catch(undefined),
	place: z.uuid().or(z.literal('')).default('')
});

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		requirePermission(context.actor.role, 'hand out');
		const { who, plan, minutes, place } = asked
			.catch({ who: [], plan: '', minutes: undefined, place: '' })
			.parse(Object.fromEntries(event.url.searchParams));
		const [choices, places] = await Promise.all([chooseFrom(context.db), listPlaces(context.db)]);
		const planned = choices.plans.find(({ id }) => id === plan);
		const wanted = minutes ?? planned?.minutes ?? null;
		return {
			...choices,
			places: places.map(({ id, name }) => ({ id, name })),
			asked: { who, plan, minutes: wanted, place },
			team:
				planned && who.length
					? await kitOutTeam(context, {
							wearerIds: who,
							planId: plan,
							minutes: wanted,
							placeId: place || null
						})
					: null
		};
	});

const each = z
	.array(z.object({ id: clientId, wearerId: z.uuid(), tag: z.string().trim().min(1).max(40) }))
	.min(1)
	.max(MOST);

export const actions: Actions = {
	give: formWrite(
		z.object({
			plan: z.uuid(),
			minutes: z.coerce.number().int().min(1).max(1440).nullable().catch(null),
			rows: jsonText('The page sent no team; load it again.').pipe(each)
		}),
		async (event: RequestEvent, { plan, minutes, rows }) => {
			const context = contextOf(event);
			const said = [];
			// Each for itself: what somebody else took meanwhile stops nobody but its own.
			for (const { id, wearerId, tag } of rows) {
				const given = await handOutItems(context, {
					id,
					wearerId,
					tags: [tag],
					planId: plan,
					minutes,
					accepted: true
				});
				const why = given.judged.flatMap(({ verdict, asked: questions }) => [
					...questions.map(({ text }) => text),
					...verdict.reasons.filter(({ weight }) => weight === 'stop').map(({ text }) => text)
				]);
				said.push({ id, tag, wearerId, done: given.done, why: given.done ? [] : why });
			}
			return said;
		}
	)
};
