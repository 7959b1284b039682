import { z } from 'zod';
import { TEST_HOUSE_WORK } from '$core/site/places';
import { requirePermission } from '$lib/server/kernel/permissions';
import { saveSite, siteCalendar } from '$lib/server/site/settings';
import { listTestHouses, saveTestHouse } from '$lib/server/site/test-houses';
import { clientId, contextOf, formAction, page, requested } from '$lib/server/web/request';
import { forgetVisit } from '$lib/server/web/visits';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor } = contextOf(event);
		requirePermission(actor.role, 'keep the site');
		return { houses: await listTestHouses(db) };
	});

const version = z.coerce.number().int().min(0);
/** Holidays as rows of a day and a name; rows without both are left out. */
const holidaysOf = (days: readonly string[], names: readonly string[]) =>
	days.flatMap((on, i) => {
		const name = names[i]?.trim() ?? '';
		return on || name ? [{ on, name }] : [];
	});

export const actions: Actions = {
	calendar: formAction(
		siteCalendar.omit({ holidays: true }).extend({
			...requested,
			version,
			days: z
				.array(z.union([z.iso.date(), z.literal('')]))
				.max(400)
				.default([]),
			names: z.array(z.string().max(60, 'A holiday: at most 60 characters.')).max(400).default([])
		}),
		async (event: RequestEvent, { requestId, version: seen, days, names, ...rest }) => {
			const choices = { ...rest, holidays: holidaysOf(days, names) };
			await saveSite(contextOf(event), { requestId, version: seen, choices });
			forgetVisit(event.request.headers);
			return { kept: true };
		}
	),
	house: formAction(
		z.object({
			...requested,
			id: clientId,
			version,
			name: z.string().trim().min(1, 'Name the test house.').max(60),
			takes: z.array(z.enum(TEST_HOUSE_WORK)).max(TEST_HOUSE_WORK.length).default([]),
			turnaroundDays: z.coerce
				.number('Days until things are back: type a number.')
				.int('Whole days.')
				.min(1, 'One day at least.')
				.max(366, 'A year at most.'),
			closed: z.literal('on').optional()
		}),
		async (event: RequestEvent, { closed, ...input }) => {
			await saveTestHouse(contextOf(event), { ...input, closed: closed === 'on' });
			return { keptHouse: input.name };
		}
	)
};
