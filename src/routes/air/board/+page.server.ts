import { z } from 'zod';
import { boardFeed, boardTime } from '$lib/server/air/board';
import { enterTeam, leave, seeAlarm, tellPressure, turnTeam } from '$lib/server/air/entries';
import { consumptions } from '$lib/server/air/uses';
import { changeWearer, simulateWearers } from '$lib/server/air/simulated-wearers';
import { teamFromCounter } from '$lib/server/handout/to-board';
import { listPlaces } from '$lib/server/hazards/plans';
import { TELEMETRY_FAULTS } from '$lib/server/instruments/simulated/telemetry';
import { may } from '$lib/server/kernel/permissions';
import { config } from '$lib/server/web/config';
import { jsonText, optionalNumber, pressureText, ticked } from '$lib/server/web/form-fields';
import { clientId, contextOf, formWrite, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const receiver = () => config().GREVAN_TELEMETRY;

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { db } = context;
		const [board, time, known, places, team] = await Promise.all([
			boardFeed(db).load(),
			boardTime(context),
			consumptions(db),
			listPlaces(db),
			teamFromCounter(db, outIds(event.url))
		]);
		return {
			/** A team that left the counter and is to go in. */
			team,
			board: { ...board, ...time },
			known: [...known].map(([wearer, figures]) => ({ wearer, ...figures })),
			places: places.map(({ id, name }) => ({ id, name })),
			faults: receiver() ? TELEMETRY_FAULTS : null,
			mayControl: may(context.actor.role, 'control entries')
		};
	});

/** Hand-outs that are brought over from the counter. */
const outIds = (url: URL): string[] =>
	z
		.array(z.uuid())
		.max(12)
		.catch([])
		.parse((url.searchParams.get('out') ?? '').slice(0, 600).split(',').filter(Boolean));

const wearer = z.object({
	id: clientId,
	wearer: z.string().max(80),
	set: z.string().max(40),
	litres: optionalNumber((text) => `“${text}” is no number of litres.`).transform((l) => l ?? null),
	start: pressureText,
	channel: z.string().max(20),
	seal: z.boolean().default(false)
});
const team = z.object({
	id: clientId,
	task: z.string().max(120),
	placeId: z
		.literal('')
		.transform(() => null)
		.or(z.uuid()),
	marginMin: z.coerce.number('A whole number of minutes.').int().min(0).max(60),
	wearers: jsonText('The page sent no wearers; load it again.').pipe(z.array(wearer).max(40))
});
const told = z.object({
	id: clientId,
	wearerId: clientId,
	pressure: pressureText,
	corrects: ticked
});

/** A gauge is told to a tenth of a bar. */
const tenth = (bar: number) => Number(bar.toFixed(1));

export const actions: Actions = {
	enter: formWrite(team, async (event: RequestEvent, input) => {
		const context = contextOf(event);
		const wearers = input.wearers.map(({ litres, start, ...one }) => ({
			...one,
			waterVolumeL: litres,
			startBar: tenth(start.bar)
		}));
		await enterTeam(context, { ...input, wearers });
		const { teams } = await boardFeed(context.db).load();
		await simulateWearers(
			context,
			receiver(),
			(teams.find((t) => t.id === input.id)?.wearers ?? []).flatMap(
				({ channel, startBar, plan }) =>
					channel
						? [{ channel, startBar, waterVolumeL: plan.waterVolumeL, lPerMin: plan.lPerMin }]
						: []
			)
		);
	}),
	tell: formWrite(told, (event: RequestEvent, { pressure, corrects, ...input }) =>
		tellPressure(contextOf(event), {
			...input,
			bar: tenth(pressure.bar),
			corrects: corrects === 'yes',
			entered: pressure.entered
		})
	),
	turn: formWrite(z.object({ ...requested, teamId: clientId }), (event: RequestEvent, input) =>
		turnTeam(contextOf(event), input)
	),
	out: formWrite(
		z.object({ ...requested, wearerId: clientId, pressure: pressureText }),
		(event: RequestEvent, input) =>
			leave(contextOf(event), {
				requestId: input.requestId,
				wearerId: input.wearerId,
				endBar: tenth(input.pressure.bar),
				entered: input.pressure.entered
			})
	),
	seen: formWrite(
		z.object({ ...requested, wearerId: clientId, key: z.string().max(80) }),
		(event: RequestEvent, input) => seeAlarm(contextOf(event), input)
	),
	simulate: formWrite(
		z.object({
			channel: z.string().regex(/^[A-Z0-9-]{1,20}$/, 'Choose the channel.'),
			lPerMin: z.coerce.number('Litres a minute.').min(0).max(300),
			fault: z.enum(TELEMETRY_FAULTS),
			speed: z.coerce.number('Times as fast.').min(1).max(500)
		}),
		(event, input) => changeWearer(contextOf(event), receiver(), input)
	)
};
