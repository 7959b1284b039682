import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { repairFor } from '$core/data/repair-choice';
import { RECALLED } from '$core/data/reject-codes';
import { repairsOf } from '$core/data/repairs';
import { releasedByAnother } from '$core/people/two-people';
import { defectPage } from '$lib/server/faults/faults';
import { faultPhotos } from '$lib/server/faults/photos';
import { notConfirmed, takeReportBack } from '$lib/server/faults/reports';
import { finishJob, partsFor, releaseJob, startJob } from '$lib/server/faults/jobs';
import { startRun } from '$lib/server/inspection/runs';
import { todayOf } from '$lib/server/kernel/context';
import { may } from '$lib/server/kernel/permissions';
import {
	clientId,
	contextOf,
	formAction,
	formWrite,
	page,
	parse,
	requested
} from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const found = await defectPage(context, parse(clientId, event.params.id));
		const asOf = todayOf(context);
		const byAnother = releasedByAnother(context.site, found.job?.defects ?? [found.defect]);
		const mayRelease = may(context.actor.role, 'release');
		const forAnother = mayRelease && byAnother && found.job?.doneBy === context.actor.id;
		return {
			...found,
			photos: await faultPhotos(context.db, found.defect.id),
			parts: found.job
				? await partsFor(context.db, found.job.repair, found.defect.station, asOf)
				: [],
			repairs: repairsOf(found.item.family).map(({ key, name, small }) => ({ key, name, small })),
			usual: repairFor(found.defect.code, found.defect.station, found.item.family).key,
			mayRepair: may(context.actor.role, 'repair'),
			mayRelease: mayRelease && !forAnother,
			/** Released by someone else than the repairer. */
			byAnother,
			/** Released by someone else than who looks, because that is who repaired. */
			forAnother,
			me: context.actor.id,
			/** Ended by looking for it in vain. */
			mayDeny: mayRelease && found.defect.code !== RECALLED
		};
	});

const lines = z.array(z.string().max(200)).max(40).default([]);

export const actions: Actions = {
	start: formAction(
		z.object({
			id: clientId,
			itemId: clientId,
			repair: z.string().max(60),
			defects: z
				.array(z.uuid())
				.min(1, 'Choose the faults that this repair mends.')
				.max(100)
				.prefault([])
		}),
		async (event: RequestEvent, form) => {
			await startJob(contextOf(event), {
				id: form.id,
				itemId: form.itemId,
				repair: form.repair,
				defectIds: form.defects
			});
			return {};
		}
	),
	finish: formAction(
		z.object({
			...requested,
			jobId: clientId,
			version: z.coerce.number().int(),
			proof: lines,
			proofLines: z.coerce.number().int().min(0).max(20),
			lots: lines,
			minutes: z
				.literal('')
				.transform(() => null)
				.or(
					z.coerce.number('Type minutes.').int('Whole minutes.').min(0).max(1440, '1440 at most.')
				)
				.default(null),
			note: z.string().trim().max(500, 'A note has at most 500 characters.').default('')
		}),
		async (event: RequestEvent, form) => {
			await finishJob(contextOf(event), {
				requestId: form.requestId,
				jobId: form.jobId,
				version: form.version,
				proof: Array.from({ length: form.proofLines }, (_, i) => form.proof.includes(String(i))),
				parts: form.lots.filter(Boolean).map((choice) => {
					const [lotId = '', quantity = '1'] = choice.split(':');
					return { lotId: parse(clientId, lotId), quantity: Number(quantity) };
				}),
				note: form.note,
				minutes: form.minutes
			});
			return {};
		}
	),
	back: formWrite(
		z.object({ ...requested, reportId: clientId, why: z.string().trim().max(300).default('') }),
		(event: RequestEvent, form) => takeReportBack(contextOf(event), form)
	),
	deny: formWrite(
		z.object({ ...requested, why: z.string().trim().max(300).default('') }),
		(event: RequestEvent, form) =>
			notConfirmed(contextOf(event), { ...form, defectId: event.params.id ?? '' })
	),
	inspect: formAction(
		z.object({ id: clientId, tag: z.string().max(40) }),
		async (event: RequestEvent, form) => {
			const { id } = await startRun(contextOf(event), form);
			redirect(303, `/runs/${id}`);
		}
	),
	release: formAction(
		z.object({ ...requested, jobId: clientId, version: z.coerce.number().int() }),
		async (event: RequestEvent, form) => {
			await releaseJob(contextOf(event), form);
			return {};
		}
	)
};
