import { z } from 'zod';
import { BATCH_STEPS, BROKEN_DECISIONS } from '$core/care/batch';
import { DRYING } from '$core/care/wash-check';
import { batchPage } from '$lib/server/care/batch-lists';
import { giveUpBatch, intoBatch, outOfBatch, readBath, stepBatch } from '$lib/server/care/batches';
import { listStock } from '$lib/server/care/stock';
import {
	BATH_FAULTS,
	fillSimulatedBath,
	measureBath,
	thermometerState
} from '$lib/server/care/thermometer';
import { todayOf } from '$lib/server/kernel/context';
import { may } from '$lib/server/kernel/permissions';
import { config } from '$lib/server/web/config';
import { optionalNumber } from '$lib/server/web/form-fields';
import { clientId, contextOf, formWrite, page, parse, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const thermometer = () => config().GREVAN_THERMOMETER;
const batchOf = (event: RequestEvent) => parse(clientId, event.params.id);
const tag = z.string().trim().min(1, 'Scan or type a tag.').max(40);
const figure = (what: string) => optionalNumber((text) => `“${text}” is no ${what}.`);

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const [found, stock, gauge] = await Promise.all([
			batchPage(context, batchOf(event)),
			listStock(context.db, todayOf(context)),
			thermometerState(thermometer())
		]);
		return {
			...found,
			stock,
			gauge,
			faults: config().GREVAN_DEMO_PASSWORD && thermometer() ? BATH_FAULTS : null,
			mayWash: may(context.actor.role, 'wash')
		};
	});

export const actions: Actions = {
	// A scan carries its own id, so that sent again it is one.
	into: formWrite(z.object({ id: clientId, tag }), (event: RequestEvent, { id, tag: scanned }) =>
		intoBatch(contextOf(event), { requestId: id, batchId: batchOf(event), tag: scanned })
	),
	out: formWrite(z.object({ ...requested, tag }), (event: RequestEvent, form) =>
		outOfBatch(contextOf(event), { ...form, batchId: batchOf(event) })
	),
	measure: formWrite(z.object({ id: clientId }), (event: RequestEvent, { id }) =>
		measureBath(contextOf(event), thermometer(), { id, batchId: batchOf(event) })
	),
	read: formWrite(
		z.object({
			id: clientId,
			celsius: figure('temperature').refine((c) => c !== undefined, 'How warm is the bath?')
		}),
		(event: RequestEvent, { id, celsius = 0 }) =>
			readBath(contextOf(event), { id, batchId: batchOf(event), celsius, measured: false })
	),
	step: formWrite(
		z.object({
			...requested,
			to: z.enum(BATCH_STEPS),
			containerId: z
				.uuid()
				.or(z.literal('').transform(() => undefined))
				.optional(),
			volumeL: figure('number of litres').optional(),
			stockMl: figure('number of millilitres').optional(),
			rinsed: z
				.enum(['yes', 'no'], 'Say whether it was rinsed.')
				.transform((word) => word === 'yes')
				.optional(),
			driedBy: z.enum(DRYING, 'Say how it is dried.').optional(),
			cabinetC: figure('temperature').optional(),
			decision: z.enum(BROKEN_DECISIONS).optional()
		}),
		(event: RequestEvent, form) => stepBatch(contextOf(event), { ...form, batchId: batchOf(event) })
	),
	'give-up': formWrite(
		z.object({
			...requested,
			why: z.string().trim().max(300, 'At most 300 characters.').default('')
		}),
		(event: RequestEvent, form) =>
			giveUpBatch(contextOf(event), { ...form, batchId: batchOf(event) })
	),
	fill: formWrite(
		z.object({
			celsius: z.coerce.number('A number of °C.').min(5).max(90),
			fault: z.enum(BATH_FAULTS)
		}),
		(event: RequestEvent, form) => fillSimulatedBath(contextOf(event), thermometer(), form)
	)
};
