import { z } from 'zod';
import { TEST_HOUSE_WORK } from '$core/site/places';
import { requirePermission } from '$lib/server/kernel/permissions';
import { saveSite, siteCalendar } from '$lib/server/site/settings';
import { listTestHouses, saveTestHouse } from '$lib/server/site/test-houses';
import { clientId, contextOf, formAction, page, requested } from '$lib/server/web/request';
import { forgetVisit } from '$lib/server/web/visits';
import { Refusal } from '$lib/server/kernel/refusal';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor } = contextOf(event);
		requirePermission(actor.role, 'keep the site');
		return { houses: await listTestHouses(db) };
	});

const version = z.coerce.number().int().min(0);
const LINE = /^(\d{4}-\d{2}-\d{2})\s+(.+)$/;

/** Holidays as lines such as “2026-12-25 Christmas”. @throws Refusal at the first that is none, with its number */
function holidaysOf(text: string) {
	return text
		.split('\n')
		.map((line) => line.trim())
		.flatMap((line, i) => {
			if (!line) return [];
			const found = LINE.exec(line);
			if (!found)
				throw new Refusal(
					'invalid',
					`Line ${i + 1}, “${line}”: a day as 2026-12-25, a space, its name.`,
					'holidays'
				);
			return [{ on: found[1] ?? '', name: (found[2] ?? '').slice(0, 60) }];
		});
}

export const actions: Actions = {
	calendar: formAction(
		siteCalendar
			.omit({ holidays: true })
			.extend({ ...requested, version, holidays: z.string().max(20_000).default('') }),
		async (event: RequestEvent, { requestId, version: seen, holidays, ...rest }) => {
			const choices = { ...rest, holidays: holidaysOf(holidays) };
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
