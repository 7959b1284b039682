import { z } from 'zod';
import { cylindersOfSet } from '$lib/server/air/cylinder-lists';
import { consumptions } from '$lib/server/air/uses';
import { itemByTag, tidyTag } from '$lib/server/register/items';
import { weightsOf } from '$lib/server/register/sets';
import { contextOf, page, parse } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

const query = z.object({ set: z.string().trim().max(40).catch('') });

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db } = contextOf(event);
		const { set } = parse(query, Object.fromEntries(event.url.searchParams));
		const known = await consumptions(db);
		const cylinders = set ? await cylindersOfSet(db, set) : [];
		const weights = set ? await weightsOf(db, (await itemByTag(db, set)).item.id) : null;
		const [first] = cylinders;
		return {
			set: set ? tidyTag(set) : '',
			// The cylinders of one set are alike; the card counts them together.
			cylinders: first
				? [
						{
							count: String(cylinders.length),
							litres: String(first.waterVolumeL),
							bar: String(Math.round(first.pressureBar ?? first.ratedBar)),
							kg: String(first.emptyKg ?? '')
						}
					]
				: [],
			/** What is known of the weight of the set besides its cylinders, kg. */
			restKg: weights?.restKg ?? null,
			known: [...known].map(([wearer, figures]) => ({ wearer, ...figures }))
		};
	});
