import { z } from 'zod';
import { cylindersOfSet } from '$lib/server/air/cylinder-lists';
import { consumptions } from '$lib/server/air/uses';
import { tidyTag } from '$lib/server/register/items';
import { contextOf, page, parse } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

const query = z.object({ set: z.string().trim().max(40).catch('') });

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db } = contextOf(event);
		const { set } = parse(query, Object.fromEntries(event.url.searchParams));
		const [known, cylinders] = [await consumptions(db), set ? await cylindersOfSet(db, set) : []];
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
			known: [...known].map(([wearer, figures]) => ({ wearer, ...figures }))
		};
	});
