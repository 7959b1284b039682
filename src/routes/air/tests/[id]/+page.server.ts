import { z } from 'zod';
import { enterAirTest, noteWork, sourceWithState, testsOf } from '$lib/server/air-sources';
import { may } from '$lib/server/context';
import { optionalNumber, pressureText } from '$lib/server/form-fields';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import { dayAt } from '$lib/server/site';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { site } = event.locals;
		const id = parse(clientId, event.params.id);
		const today = dayAt(context.now(), site.timeZone);
		return {
			...(await sourceWithState(context.db, site, id, today)),
			...(await testsOf(context.db, site, id)),
			...{ today, ruleSet: site.ruleSet },
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
	test: (event) =>
		action(async () => {
			const { id, takenAt, laboratory, pressure, ...figures } = parse(
				test,
				await formBody(event.request)
			);
			const sourceId = parse(clientId, event.params.id);
			const result = await enterAirTest(contextOf(event), event.locals.site, {
				...{ id, sourceId, takenAt, laboratory },
				sample: { ...figures, pressureBar: pressure.bar }
			});
			return { tested: { ...result } };
		}),
	work: (event) =>
		action(async () => {
			const input = parse(work, await formBody(event.request));
			const sourceId = parse(clientId, event.params.id);
			await noteWork(contextOf(event), { ...input, sourceId });
		})
};
