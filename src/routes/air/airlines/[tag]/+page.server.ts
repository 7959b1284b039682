import { z } from 'zod';
import { RIG_ALARMS } from '$core/airline/rig';
import { noteRigEvent, rigPage, saveRig } from '$lib/server/airlines';
import { may } from '$lib/server/context';
import { neededNumber, optionalNumber, pressureText } from '$lib/server/form-fields';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import { dayAt } from '$lib/server/site';
import type { Actions, PageServerLoad } from './$types';

const query = z.object({ wearers: z.coerce.number().int().min(1).max(50).nullable().catch(null) });

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { site } = event.locals;
		const { wearers } = parse(query, Object.fromEntries(event.url.searchParams));
		return {
			...(await rigPage(context, site, event.params.tag, wearers)),
			today: dayAt(context.now(), site.timeZone),
			mayKeep: may(context.actor.role, 'keep the register'),
			mayTest: may(context.actor.role, 'test air')
		};
	});

const orNone = optionalNumber((text) => `“${text}” is no number.`).transform((n) => n ?? null);
const bar = pressureText.transform((p) => Number(p.bar.toFixed(2)));
const rig = z.object({
	version: z.coerce.number().int().nullable().catch(null),
	sourceId: z.uuid('Choose where its air comes from.'),
	dryer: z.string().trim().max(60),
	sorbentMonths: orNone,
	alarm: z.enum(RIG_ALARMS, 'Choose the alarm.'),
	alarmPpm: orNone,
	alarmDays: neededNumber('Days between tests of the alarm.'),
	regulatorBar: bar,
	boreMm: neededNumber('The bore of its hose, mm. Look at the print on it or measure it.'),
	lengthM: neededNumber('The length of its hose, m.'),
	fittingsM: neededNumber('Its fittings as metres of hose, 0 for none.'),
	outlets: neededNumber('How many outlets it has.').pipe(z.int('A whole number of outlets.')),
	leastBar: bar,
	wearing: z.enum(['tight-fitting', 'hood'])
});
const signed = z.object({
	id: clientId,
	kind: z.enum(['sorbent', 'alarm']),
	doneOn: z.string().trim(),
	passed: z.enum(['yes', 'no']).transform((word) => word === 'yes'),
	note: z.string().trim().max(200)
});

export const actions: Actions = {
	rig: (event) =>
		action(async () => {
			const { version, ...input } = parse(rig, await formBody(event.request));
			await saveRig(contextOf(event), event.locals.site, {
				...{ ...input, tag: event.params.tag, version: version || null }
			});
		}),
	event: (event) =>
		action(async () => {
			const input = parse(signed, await formBody(event.request));
			await noteRigEvent(contextOf(event), event.locals.site, {
				...input,
				tag: event.params.tag
			});
		})
};
