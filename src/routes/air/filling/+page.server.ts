import { z } from 'zod';
import { bringCylinder } from '$lib/server/air/cylinders';
import { fillRoom } from '$lib/server/air/fill-room';
import { finishFill, openBank, pumpBank, rejectCylinder, startFill } from '$lib/server/air/fills';
import { simulatePanel } from '$lib/server/air/panel';
import { PANEL_FAULTS } from '$lib/server/instruments/simulated/fill-panel';
import { may } from '$lib/server/kernel/permissions';
import { config } from '$lib/server/web/config';
import { neededNumber, pressureText, ticked } from '$lib/server/web/form-fields';
import { clientId, contextOf, formWrite, page, parse, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const panel = () => config().GREVAN_FILL_PANEL;

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		return {
			...(await fillRoom(context, panel())),
			connected: panel() !== undefined,
			panelFaults: PANEL_FAULTS,
			mayFill: may(context.actor.role, 'fill cylinders')
		};
	});

const tag = z.string('Scan a tag.').trim().min(1, 'Scan a tag.').max(40);
const start = z.object({
	id: clientId,
	tag,
	sourceId: z.uuid('Choose the source of the air.'),
	looked: ticked
});
const bank = z.coerce.number().int().min(1).max(20);
const finish = z.object({
	...requested,
	id: clientId,
	byHand: ticked,
	bar: z.string().max(20).optional(),
	celsius: z.string().max(20).optional()
});
const hand = z.object({ bar: pressureText, celsius: neededNumber('Its temperature, °C.') });

export const actions: Actions = {
	queue: formWrite(z.object({ ...requested, tag }), (event: RequestEvent, input) =>
		bringCylinder(contextOf(event), { ...input, to: 'filling' })
	),
	unqueue: formWrite(z.object({ ...requested, tag }), (event: RequestEvent, input) =>
		bringCylinder(contextOf(event), { ...input, to: 'rack' })
	),
	start: formWrite(start, (event: RequestEvent, { looked, ...input }) =>
		startFill(contextOf(event), panel(), { ...input, looked: looked === 'yes' })
	),
	reject: formWrite(
		z.object({ id: clientId, tag, step: z.string().max(60), code: z.string().max(20) }),
		(event, input) => rejectCylinder(contextOf(event), input)
	),
	bank: formWrite(
		z.object({ ...requested, fillId: clientId, bank }),
		(event: RequestEvent, input) => openBank(contextOf(event), panel(), input)
	),
	pump: formWrite(z.object({ ...requested, bank }), (event: RequestEvent, input) =>
		pumpBank(contextOf(event), panel(), input)
	),
	finish: formWrite(finish, async (event: RequestEvent, { requestId, id, byHand, ...rest }) => {
		const read = byHand ? parse(hand, rest) : undefined;
		const done = await finishFill(contextOf(event), panel(), {
			requestId,
			id,
			hand: read && { bar: read.bar.bar, celsius: read.celsius }
		});
		return { filled: done };
	}),
	simulate: formWrite(
		z.object({ speed: z.coerce.number().min(1).max(5000), fault: z.enum(PANEL_FAULTS) }),
		(event, input) => simulatePanel(contextOf(event), panel(), input)
	)
};
