import { z } from 'zod';
import { LOCATIONS, MATERIALS } from '$core/air/cylinder';
import { may } from '$lib/server/context';
import {
	bringCylinder,
	cylinderPage,
	noteCylinderTest,
	noteInside,
	notePressure,
	saveCylinder
} from '$lib/server/cylinders';
import { Fault } from '$lib/server/errors';
import { neededNumber, optionalNumber, pressureText } from '$lib/server/form-fields';
import { itemByTag } from '$lib/server/items';
import { clientId, contextOf, deed, page } from '$lib/server/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { item, model, place } = await itemByTag(context.db, event.params.tag);
		if (item.family !== 'cylinder') throw new Fault('not found', `${item.tag} is no cylinder.`);
		return {
			...{ tag: item.tag, model: model.name, ratedBar: model.ratedBar, place },
			known: await cylinderPage(context, event.locals.site, item.id),
			mayKeep: may(context.actor.role, 'keep the register'),
			mayFill: may(context.actor.role, 'fill cylinders')
		};
	});

const day = z.string().trim();
const dayOrNone = day.transform((text) => text || null);
const whole = (text: string) => `“${text}” is no number.`;
const data = z.object({
	version: z.coerce.number().int().nullable().catch(null),
	waterVolumeL: neededNumber('Litres of water, as stamped.'),
	ratedBar: pressureText.transform((p) => Math.round(p.bar)),
	maximumBar: pressureText.transform((p) => Math.round(p.bar)),
	material: z.enum(MATERIALS, 'Choose the material.'),
	emptyKg: optionalNumber(whole).transform((kg) => kg ?? null),
	thread: z.string().trim().max(40),
	manufacturedOn: day,
	lifeEndsOn: dayOrNone,
	testYears: optionalNumber(whole).transform((years) => years ?? null)
});
const test = z.object({
	id: clientId,
	testedOn: day,
	passed: z.enum(['yes', 'no'], 'Passed, or not?').transform((word) => word === 'yes'),
	stamp: z.string().trim().max(60)
});
const pressure = z.object({ pressure: pressureText });
const bring = z.object({ to: z.enum(LOCATIONS) });

export const actions: Actions = {
	data: deed(data, (event: RequestEvent, input) =>
		saveCylinder(contextOf(event), event.locals.site, {
			...input,
			tag: event.params.tag,
			version: input.version || null
		})
	),
	test: deed(test, (event: RequestEvent, input) =>
		noteCylinderTest(contextOf(event), event.locals.site, { ...input, tag: event.params.tag })
	),
	pressure: deed(pressure, (event: RequestEvent, input) =>
		notePressure(contextOf(event), event.locals.site, {
			tag: event.params.tag,
			pressureBar: Number(input.pressure.bar.toFixed(1)),
			entered: input.pressure.entered
		})
	),
	unknown: deed(z.object({}), (event: RequestEvent) =>
		notePressure(contextOf(event), event.locals.site, {
			...{ tag: event.params.tag, pressureBar: null }
		})
	),
	inside: deed(z.object({}), (event: RequestEvent) =>
		noteInside(contextOf(event), event.locals.site, event.params.tag)
	),
	bring: deed(bring, (event: RequestEvent, input) =>
		bringCylinder(contextOf(event), event.locals.site, { ...input, tag: event.params.tag })
	)
};
