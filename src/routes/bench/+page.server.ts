import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { baBench, baBenchState, simulateSet } from '$lib/server/ba-bench';
import {
	importTrace,
	instruments,
	recentTests,
	recipesFor,
	resumeTests,
	startTest,
	testable,
	TESTED_FAMILIES
} from '$lib/server/bench';
import { config } from '$lib/server/config';
import { may } from '$lib/server/context';
import { optionalNumber, uploaded } from '$lib/server/form-fields';
import { Fault } from '$lib/server/errors';
import { SET_FAULTS } from '$lib/server/instruments/ba-bench';
import { MISBEHAVIOURS } from '$lib/server/instruments/pressure-bench';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { GREVAN_PRESSURE_BENCH: benches, GREVAN_BA_BENCH, GREVAN_DEMO_PASSWORD } = config();
		await resumeTests(context.db, event.locals.site, benches);
		const [known, ba, tests, items] = await Promise.all([
			instruments(context.db, benches),
			GREVAN_BA_BENCH ? baBenchState(GREVAN_BA_BENCH) : null,
			recentTests(context.db),
			testable(context.db)
		]);
		return {
			instruments: known,
			ba,
			setFaults: SET_FAULTS,
			simulated: GREVAN_DEMO_PASSWORD !== undefined,
			mayTest: may(context.actor.role, 'inspect'),
			items,
			recipes: TESTED_FAMILIES.flatMap((family) =>
				recipesFor(family).map(({ key, name, origin }) => ({
					key,
					name,
					family,
					source: origin.source
				}))
			),
			misbehaviours: MISBEHAVIOURS,
			tests: tests.map(({ test, tag, by }) => ({
				id: test.id,
				tag,
				by,
				recipe: test.recipe,
				startedAt: test.startedAt,
				outcome: test.outcome,
				leakPaPerMin: test.leakPaPerMin
			}))
		};
	});

const volume = optionalNumber(
	() => 'The volume is a number of litres above zero.',
	(value) => value > 0 && value < 5000
).transform((value) => value ?? null);
const test = {
	id: clientId,
	tag: z.string().trim().min(1, 'Scan or type the tag.').max(20),
	recipe: z.string().min(1, 'Choose the recipe.').max(40),
	volumeL: volume
};

const bar = (most: number) => z.coerce.number().min(0).max(most);
const simulatedSet = z.object({
	fillBar: bar(400),
	leakBarPerMin: bar(100),
	whistleBar: bar(400),
	bleedBarPerS: z.coerce.number().min(0.1).max(100),
	fault: z.enum(SET_FAULTS)
});

export const actions: Actions = {
	start: async (event) => {
		const result = await action(async () => {
			const form = parse(
				z.object({
					...test,
					leak: z.coerce.number().min(-500).max(5000).default(15),
					warm: z.coerce.number().min(-10).max(10).default(0),
					fault: z.string().max(20).default('none'),
					bench: z
						.literal('')
						.transform(() => undefined)
						.or(z.coerce.number().int().min(1))
						.optional(),
					perSecond: z.coerce.number().int().min(1).max(10).default(2),
					speed: z.coerce.number().min(1).max(120).default(1)
				}),
				await formBody(event.request)
			);
			const { leak, warm, fault, speed, ...input } = form;
			const { GREVAN_PRESSURE_BENCH, GREVAN_DEMO_PASSWORD } = config();
			await startTest(contextOf(event), event.locals.site, GREVAN_PRESSURE_BENCH, {
				...input,
				misbehave: GREVAN_DEMO_PASSWORD
					? { leakPaPerMin: leak, temperatureRiseK: warm, fault, speed, seed: Date.now() % 1e6 }
					: undefined
			});
			return { id: form.id };
		});
		if ('status' in result) return result;
		redirect(303, `/bench/${result.id}`);
	},
	simulateSet: (event) =>
		action(async () => {
			const set = parse(simulatedSet, await formBody(event.request));
			if (!config().GREVAN_DEMO_PASSWORD) throw new Fault('forbidden', 'This is no demo.');
			await simulateSet(contextOf(event), baBench(), set);
			return { simulated: true };
		}),
	import: async (event) => {
		const result = await action(async () => {
			const fields = await formBody(event.request);
			const form = parse(z.object(test), fields);
			const { name, bytes } = await uploaded(fields, 'Choose a CSV file of the trace.');
			await importTrace(contextOf(event), event.locals.site, { ...form, file: name, bytes });
			return { id: form.id };
		});
		if ('status' in result) return result;
		redirect(303, `/bench/${result.id}`);
	}
};
