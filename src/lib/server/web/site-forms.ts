import type { RequestEvent } from '@sveltejs/kit';
import { z } from 'zod';
import { timeZones } from '../../../core/site/time-zone.ts';
import { PLACE_KINDS, STORAGE_TRAITS } from '../../../core/site/places.ts';
import type { Site } from '../kernel/site.ts';
import { Refusal } from '../kernel/refusal.ts';
import { UNNAMED } from '../kernel/site.ts';
import { saveSite, siteBasics } from '../site/settings.ts';
import { savePlace } from '../site/places.ts';
import { longForm } from './long-form.ts';
import { clientId, contextOf, formAction, requested } from './request.ts';
import { forgetVisit } from './visits.ts';

const basics = longForm(
	siteBasics.extend({ ...requested, version: z.coerce.number().int().min(0) })
);

/** What the form with name, rules and units of the site needs. */
export const basicsPage = (site: Site) => ({
	filled: basics.filled({ ...site, name: site.name === UNNAMED.name ? '' : site.name }, 'basics'),
	version: site.version,
	timeZones: timeZones()
});

/** Takes name, rules and units of the site, then goes on. */
export const basicsAction = (then: (event: RequestEvent) => void = () => undefined) =>
	basics.action(async (event: RequestEvent, { requestId, version, ...choices }) => {
		await saveSite(contextOf(event), { requestId, version, choices });
		forgetVisit(event.request.headers);
		then(event);
		return { kept: true };
	});

const place = z.object({
	...requested,
	id: clientId,
	version: z.coerce.number().int().min(0),
	name: z.string().trim().min(1, 'Name the place.').max(60, 'At most 60 characters.'),
	kind: z.enum(PLACE_KINDS, 'Choose what it is.').default('room'),
	storage: z.array(z.enum(STORAGE_TRAITS)).max(STORAGE_TRAITS.length).default([]),
	responsible: z
		.string()
		.max(60)
		.default('')
		.transform((id) => id || null),
	families: z.array(z.string().max(40)).max(40).default([]),
	floors: z.array(z.string().trim().max(7)).max(40).default([]),
	above: z.literal('on').optional()
});

/** Adds or changes a place with its floors, which come as a list beside that of their families. */
export const placeAction = formAction(
	place,
	async (event: RequestEvent, { families, floors, above, ...input }) => {
		const given = families.map((family, i) => [family, Number(floors[i] || 0)] as const);
		const wrong = given.findIndex(([, n]) => !Number.isInteger(n) || n < 0 || n > 100_000);
		if (wrong >= 0)
			throw new Refusal('invalid', `“${floors[wrong] ?? ''}” is no number of items.`, 'floors');
		await savePlace(contextOf(event), {
			...input,
			floors: Object.fromEntries(given.filter(([, n]) => n > 0)),
			above: above === 'on'
		});
		return { keptPlace: input.name };
	}
);
