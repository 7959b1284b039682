import { z } from 'zod';
import { RIG_ALARMS } from '$core/airline/rig';
import { noteRigEvent, rigPage, saveRig } from '$lib/server/air/airlines';
import { todayOf } from '$lib/server/kernel/context';
import { may } from '$lib/server/kernel/permissions';
import { neededNumber, optionalNumber, pressureText } from '$lib/server/web/form-fields';
import { clientId, contextOf, formAction, page, parse, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const query = z.object({ wearers: z.coerce.number().int().min(1).max(50).nullable().catch(null) });

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { wearers } = parse(query, Object.fromEntries(event.url.searchParams));
		return {
			...(await rigPage(context, event.params.tag, wearers)),
			today: todayOf(context),
			mayKeep: may(context.actor.role, 'keep the register'),
			mayTest: may(context.actor.role, 'test air')
		};
	});

const orNone = optionalNumber((text) => `“${text}” is no number.`).transform((n) => n ?? null);
const bar = pressureText.transform((p) => Number(p.bar.toFixed(2)));
const rig = z.object({
	...requested,
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
	doneOn: z.string().trim().max(20),
	passed: z.enum(['yes', 'no']).transform((word) => word === 'yes'),
	note: z.string().trim().max(200)
});

export const actions: Actions = {
	rig: formAction(rig, async (event: RequestEvent, { version, ...input }) => {
		await saveRig(contextOf(event), {
			...input,
			tag: event.params.tag,
			version: version || null
		});
	}),
	event: formAction(signed, async (event: RequestEvent, input) => {
		await noteRigEvent(contextOf(event), {
			...input,
			tag: event.params.tag
		});
	})
};
