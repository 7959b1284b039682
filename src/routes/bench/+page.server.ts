import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import {
	importTrace,
	instruments,
	recentTests,
	recipesFor,
	resumeTests,
	startTest,
	testable
} from '$lib/server/bench';
import { config } from '$lib/server/config';
import { may } from '$lib/server/context';
import { Fault } from '$lib/server/errors';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { GREVAN_PRESSURE_BENCH: address, GREVAN_DEMO_PASSWORD } = config();
		await resumeTests(context.db, event.locals.site, address);
		const [known, tests, items] = await Promise.all([
			instruments(address),
			recentTests(context.db),
			testable(context.db)
		]);
		return {
			instruments: known,
			simulated: GREVAN_DEMO_PASSWORD !== undefined,
			mayTest: may(context.actor.role, 'inspect'),
			items,
			recipes: ['full-face', 'gas-tight-suit'].flatMap((family) =>
				recipesFor(family).map(({ key, name, origin }) => ({
					key,
					name,
					family,
					source: origin.source
				}))
			),
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

const volume = z
	.string()
	.trim()
	.default('')
	.transform((text, context) => {
		if (text === '') return null;
		const value = Number(text.replace(',', '.'));
		if (value > 0 && value < 5000) return value;
		context.addIssue({ code: 'custom', message: 'The volume is a number of litres above zero.' });
		return z.NEVER;
	});
const test = {
	id: clientId,
	tag: z.string().trim().min(1, 'Scan or type the tag.').max(20),
	recipe: z.string().min(1, 'Choose the recipe.').max(40),
	volumeL: volume
};

export const actions: Actions = {
	start: async (event) => {
		const result = await action(async () => {
			const form = parse(
				z.object({
					...test,
					leak: z.coerce.number().min(-500).max(5000).default(15),
					warm: z.coerce.number().min(-10).max(10).default(0),
					fault: z.string().max(20).default('none'),
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
	import: async (event) => {
		const result = await action(async () => {
			const fields = await formBody(event.request);
			const form = parse(z.object(test), fields);
			const { file } = fields;
			if (!(file instanceof File) || file.size === 0)
				throw new Fault('invalid', 'Choose a CSV file of the trace.', 'file');
			await importTrace(contextOf(event), event.locals.site, {
				...form,
				file: file.name,
				bytes: new Uint8Array(await file.arrayBuffer())
			});
			return { id: form.id };
		});
		if ('status' in result) return result;
		redirect(303, `/bench/${result.id}`);
	}
};
