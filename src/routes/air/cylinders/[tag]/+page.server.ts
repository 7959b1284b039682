import { z } from 'zod';
import { LOCATIONS, MATERIALS } from '$core/air/cylinder';
import { recordOf } from '$core/data/family-records';
import { cylinderPage } from '$lib/server/air/cylinder-lists';
import {
	bringCylinder,
	noteCylinderTest,
	noteInside,
	notePressure,
	saveCylinder
} from '$lib/server/air/cylinders';
import { may } from '$lib/server/kernel/permissions';
import { Refusal } from '$lib/server/kernel/refusal';
import { itemByTag } from '$lib/server/register/items';
import { neededNumber, optionalNumber, pressureText } from '$lib/server/web/form-fields';
import { longForm } from '$lib/server/web/long-form';
import { clientId, contextOf, formWrite, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { item, model, place } = await itemByTag(context.db, event.params.tag);
		if (recordOf(item.family).air !== 'cylinder')
			throw new Refusal('not found', `${item.tag} is no cylinder.`);
		const known = await cylinderPage(context, item.id);
		return {
			filled: stamps.filled(
				{ material: 'composite', ratedBar: model.ratedBar, ...known?.row },
				`stamps-${item.tag}-${known?.row.version ?? 0}`
			),
			tag: item.tag,
			model: model.name,
			ratedBar: model.ratedBar,
			place,
			known,
			mayKeep: may(context.actor.role, 'keep the register'),
			mayFill: may(context.actor.role, 'fill cylinders')
		};
	});

const day = z.string().trim().max(20);
const dayOrNone = day.transform((text) => text || null);
const whole = (text: string) => `“${text}” is no number.`;
const stamps = longForm(
	z.object({
		...requested,
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
	})
);
const test = z.object({
	id: clientId,
	testedOn: day,
	passed: z.enum(['yes', 'no'], 'Passed, or not?').transform((word) => word === 'yes'),
	stamp: z.string().trim().max(60)
});
const pressure = z.object({ ...requested, pressure: pressureText });
const bring = z.object({ ...requested, to: z.enum(LOCATIONS) });

export const actions: Actions = {
	data: stamps.action((event: RequestEvent, input) =>
		saveCylinder(contextOf(event), {
			...input,
			tag: event.params.tag,
			version: input.version || null
		})
	),
	test: formWrite(test, (event: RequestEvent, input) =>
		noteCylinderTest(contextOf(event), { ...input, tag: event.params.tag })
	),
	pressure: formWrite(pressure, (event: RequestEvent, input) =>
		notePressure(contextOf(event), {
			requestId: input.requestId,
			tag: event.params.tag,
			pressureBar: Number(input.pressure.bar.toFixed(1)),
			entered: input.pressure.entered
		})
	),
	unknown: formWrite(z.object(requested), (event: RequestEvent, input) =>
		notePressure(contextOf(event), { ...input, tag: event.params.tag, pressureBar: null })
	),
	inside: formWrite(z.object(requested), (event: RequestEvent, input) =>
		noteInside(contextOf(event), { ...input, tag: event.params.tag })
	),
	bring: formWrite(bring, (event: RequestEvent, input) =>
		bringCylinder(contextOf(event), { ...input, tag: event.params.tag })
	)
};
