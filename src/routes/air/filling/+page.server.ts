import { z } from 'zod';
import { config } from '$lib/server/config';
import { may } from '$lib/server/context';
import { bringCylinder } from '$lib/server/cylinders';
import {
	fillRoom,
	finishFill,
	openBank,
	pumpBank,
	rejectCylinder,
	simulatePanel,
	startFill
} from '$lib/server/fills';
import { neededNumber, pressureText } from '$lib/server/form-fields';
import { PANEL_FAULTS } from '$lib/server/instruments/fill-panel';
import { clientId, contextOf, deed, page, parse } from '$lib/server/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const panel = () => config().GREVAN_FILL_PANEL;

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		return {
			...(await fillRoom(context, event.locals.site, panel())),
			...{ connected: panel() !== undefined, panelFaults: PANEL_FAULTS },
			mayFill: may(context.actor.role, 'fill cylinders')
		};
	});

const tag = z.string('Scan a tag.').trim().min(1, 'Scan a tag.');
const start = z.object({
	id: clientId,
	tag,
	sourceId: z.uuid('Choose the source of the air.'),
	looked: z.string().optional()
});
const bank = z.coerce.number().int().min(1).max(20);
const finish = z.object({
	id: clientId,
	byHand: z.string().optional(),
	bar: z.string().optional(),
	celsius: z.string().optional()
});
const hand = z.object({ bar: pressureText, celsius: neededNumber('Its temperature, °C.') });

export const actions: Actions = {
	queue: deed(z.object({ tag }), (event: RequestEvent, input) =>
		bringCylinder(contextOf(event), event.locals.site, { tag: input.tag, to: 'filling' })
	),
	unqueue: deed(z.object({ tag }), (event: RequestEvent, input) =>
		bringCylinder(contextOf(event), event.locals.site, { tag: input.tag, to: 'rack' })
	),
	start: deed(start, (event: RequestEvent, { looked, ...input }) =>
		startFill(contextOf(event), event.locals.site, panel(), { ...input, looked: looked === 'yes' })
	),
	reject: deed(
		z.object({ id: clientId, tag, step: z.string(), code: z.string() }),
		(event, input) => rejectCylinder(contextOf(event), event.locals.site, input)
	),
	bank: deed(z.object({ fillId: clientId, bank }), (event: RequestEvent, input) =>
		openBank(contextOf(event), panel(), input)
	),
	pump: deed(z.object({ bank }), (event: RequestEvent, input) =>
		pumpBank(contextOf(event), panel(), input)
	),
	finish: deed(finish, async (event: RequestEvent, { id, byHand, ...rest }) => {
		const read = byHand ? parse(hand, rest) : undefined;
		const done = await finishFill(contextOf(event), event.locals.site, panel(), {
			id,
			hand: read && { bar: read.bar.bar, celsius: read.celsius }
		});
		return { filled: done };
	}),
	simulate: deed(
		z.object({ speed: z.coerce.number().min(1).max(5000), fault: z.enum(PANEL_FAULTS) }),
		(event, input) => simulatePanel(contextOf(event), panel(), input)
	)
};
