import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { baBench, baBenchState, simulateSet } from '$lib/server/bench/gauge';
import { recipesFor } from '$lib/server/bench/judged-test';
import {
	importTrace,
	instruments,
	recentTests,
	startTest,
	testable,
	TESTED
} from '$lib/server/bench/tests';
import { SET_FAULTS } from '$lib/server/instruments/simulated/ba-bench';
import { MISBEHAVIOURS } from '$lib/server/instruments/simulated/pressure-bench';
import { may } from '$lib/server/kernel/permissions';
import { Refusal } from '$lib/server/kernel/refusal';
import { config } from '$lib/server/web/config';
import { optionalNumber, uploaded } from '$lib/server/web/form-fields';
import {
	action,
	clientId,
	contextOf,
	formAction,
	formBody,
	page,
	parse
} from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { GREVAN_PRESSURE_BENCH: benches, GREVAN_BA_BENCH, GREVAN_DEMO_PASSWORD } = config();
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
			recipes: TESTED.flatMap((family) =>
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
	start: formAction(
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
		async (event: RequestEvent, { leak, warm, fault, speed, ...input }) => {
			const { GREVAN_PRESSURE_BENCH, GREVAN_DEMO_PASSWORD } = config();
			await startTest(contextOf(event), GREVAN_PRESSURE_BENCH, {
				...input,
				misbehave: GREVAN_DEMO_PASSWORD
					? { leakPaPerMin: leak, temperatureRiseK: warm, fault, speed, seed: Date.now() % 1e6 }
					: undefined
			});
			redirect(303, `/bench/${input.id}`);
		}
	),
	simulateSet: formAction(simulatedSet, async (event: RequestEvent, set) => {
		if (!config().GREVAN_DEMO_PASSWORD) throw new Refusal('forbidden', 'This is no demo.');
		await simulateSet(contextOf(event), baBench(), set);
		return { simulated: true };
	}),
	import: (event) =>
		action(async () => {
			const fields = await formBody(event.request);
			const form = parse(z.object(test), fields);
			const { name, bytes } = await uploaded(fields, 'Choose a CSV file of the trace.');
			await importTrace(contextOf(event), { ...form, file: name, bytes });
			redirect(303, `/bench/${form.id}`);
		})
};
