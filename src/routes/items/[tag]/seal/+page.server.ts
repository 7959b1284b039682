import { z } from 'zod';
import { BLOCKING, SEAL_WAYS, type Inlet, type SealWay } from '$core/data/blocking';
import { recordOf } from '$core/data/family-records';
import { donningCard } from '$core/fit/donning';
import { FELT, type Felt } from '$core/fit/seal-check';
import { saveSealCheck, sealChecksOf } from '$lib/server/inspection/seal-checks';
import { may } from '$lib/server/kernel/permissions';
import { Refusal } from '$lib/server/kernel/refusal';
import { itemByTag } from '$lib/server/register/items';
import { jsonText } from '$lib/server/web/form-fields';
import { clientId, contextOf, formAction, page } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { item, model } = await itemByTag(context.db, event.params.tag);
		if (recordOf(item.family).inlets.length === 0)
			throw new Refusal('not found', `${item.tag} takes no seal check.`);
		return {
			tag: item.tag,
			family: item.family,
			model: model.name,
			...donningCard(item.family, model.donning),
			makerLines: model.makerLines.filter((line) => /facepiece|mask/.test(line.station)),
			checks: await sealChecksOf(context.db, item.id),
			mayCheck: may(context.actor.role, 'check a seal')
		};
	});

const attempt = z.object({
	inlet: z.enum(Object.keys(BLOCKING) as [Inlet, ...Inlet[]]),
	felt: z.enum(Object.keys(FELT) as [Felt, ...Felt[]]),
	way: z.enum(Object.keys(SEAL_WAYS) as [SealWay, ...SealWay[]]).optional()
});
const body = z.object({
	id: clientId,
	wearer: z.string().max(200),
	attempts: jsonText('The attempts did not arrive whole.', 4000).pipe(z.array(attempt).max(50))
});

export const actions: Actions = {
	default: formAction(body, async (event: RequestEvent, input) => {
		await saveSealCheck(contextOf(event), { ...input, tag: event.params.tag });
		return { kept: true };
	})
};
