import { z } from 'zod';
import { enterAirTest, noteWork, sourceWithState, testsOf } from '$lib/server/air/sources';
import { todayOf } from '$lib/server/kernel/context';
import { may } from '$lib/server/kernel/permissions';
import { optionalNumber, pressureText } from '$lib/server/web/form-fields';
import { clientId, contextOf, formAction, page, parse } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { site } = event.locals;
		const id = parse(clientId, event.params.id);
		const today = todayOf(context);
		return {
			...(await sourceWithState(context.db, site, id, today)),
			...(await testsOf(context.db, site, id)),
			today,
			ruleSet: site.ruleSet,
			mayTest: may(context.actor.role, 'test air')
		};
	});

const figure = optionalNumber((text) => `“${text}” is no number.`);
const test = z.object({
	id: clientId,
	takenAt: z.iso
		.datetime({ offset: true, error: 'Say when the sample was taken.' })
		.transform((text) => new Date(text)),
	laboratory: z.string().trim().min(1, 'Say who tested it.').max(80),
	sampledAt: z.enum(['filling outlet', 'cylinder', 'airline'], 'Say where it was taken.'),
	pressure: pressureText,
	oxygenPercent: figure,
	coPpm: figure,
	co2Ppm: figure,
	oilMgPerM3: figure,
	waterMgPerM3: figure,
	lowestUseC: figure,
	odour: z
		.enum(['none', 'smells', ''])
		.transform((word) => (word === '' ? undefined : word === 'smells'))
});
const work = z.object({ id: clientId, what: z.string().trim().max(300) });

export const actions: Actions = {
	test: formAction(
		test,
		async (event: RequestEvent, { id, takenAt, laboratory, pressure, ...figures }) => {
			const sourceId = parse(clientId, event.params.id);
			const result = await enterAirTest(contextOf(event), {
				id,
				sourceId,
				takenAt,
				laboratory,
				sample: { ...figures, pressureBar: pressure.bar }
			});
			return { tested: { ...result } };
		}
	),
	work: formAction(work, async (event: RequestEvent, input) => {
		const sourceId = parse(clientId, event.params.id);
		await noteWork(contextOf(event), { ...input, sourceId });
	})
};
