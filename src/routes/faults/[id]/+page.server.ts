import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { rejectCode } from '$core/data/reject-codes';
import { REPAIRS } from '$core/data/repairs';
import { may } from '$lib/server/context';
import { defectPage, finishJob, partsFor, releaseJob, startJob } from '$lib/server/faults';
import { startRun } from '$lib/server/inspections';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import { dayAt } from '$lib/server/site';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const found = await defectPage(context, parse(clientId, event.params.id));
		const asOf = dayAt(context.now(), event.locals.site.timeZone);
		return {
			...found,
			parts: found.job
				? await partsFor(context.db, found.job.repair, found.defect.station, asOf)
				: [],
			repairs: REPAIRS.map(({ key, name }) => ({ key, name })),
			usual: rejectCode(found.defect.code).repair,
			mayRepair: may(context.actor.role, 'repair'),
			mayRelease: may(context.actor.role, 'release')
		};
	});

const lines = z.array(z.string()).default([]);

export const actions: Actions = {
	start: (event) =>
		action(async () => {
			const form = parse(
				z.object({
					id: clientId,
					itemId: clientId,
					repair: z.string(),
					defects: z.array(z.uuid()).min(1, 'Choose the faults that this repair mends.')
				}),
				{ defects: [], ...(await formBody(event.request)) }
			);
			await startJob(contextOf(event), event.locals.site, {
				id: form.id,
				itemId: form.itemId,
				repair: form.repair,
				defectIds: form.defects
			});
			return {};
		}),
	finish: (event) =>
		action(async () => {
			const form = parse(
				z.object({
					jobId: clientId,
					version: z.coerce.number().int(),
					proof: lines,
					proofLines: z.coerce.number().int().min(0).max(20),
					lots: lines,
					note: z.string().trim().max(500, 'A note has at most 500 characters.').default('')
				}),
				await formBody(event.request)
			);
			await finishJob(contextOf(event), event.locals.site, {
				jobId: form.jobId,
				version: form.version,
				proof: Array.from({ length: form.proofLines }, (_, i) => form.proof.includes(String(i))),
				parts: form.lots.filter(Boolean).map((choice) => {
					const [lotId = '', quantity = '1'] = choice.split(':');
					return { lotId: parse(clientId, lotId), quantity: Number(quantity) };
				}),
				note: form.note
			});
			return {};
		}),
	inspect: async (event) => {
		const result = await action(async () => {
			const form = parse(
				z.object({ id: clientId, tag: z.string() }),
				await formBody(event.request)
			);
			return startRun(contextOf(event), form);
		});
		if ('status' in result) return result;
		redirect(303, `/runs/${result.id}`);
	},
	release: (event) =>
		action(async () => {
			const form = parse(
				z.object({ jobId: clientId, version: z.coerce.number().int() }),
				await formBody(event.request)
			);
			await releaseJob(contextOf(event), event.locals.site, form);
			return {};
		})
};
