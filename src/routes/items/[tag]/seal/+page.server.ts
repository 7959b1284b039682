import { z } from 'zod';
import { BLOCKING, donningCard, INLETS, type Inlet } from '$core/data/blocking';
import { FELT, type Felt } from '$core/fit/seal-check';
import { may } from '$lib/server/context';
import { Fault } from '$lib/server/errors';
import { itemByTag } from '$lib/server/items';
import { jsonText } from '$lib/server/form-fields';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import { saveSealCheck, sealChecksOf } from '$lib/server/seal-checks';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { item, model } = await itemByTag(context.db, event.params.tag);
		if (!INLETS[item.family]) throw new Fault('not found', `${item.tag} takes no seal check.`);
		return {
			tag: item.tag,
			family: item.family,
			model: model.name,
			...donningCard(item.family, model.donning),
			makerLines: model.makerLines.filter((line) => /facepiece|mask/.test(line.station)),
			checks: await sealChecksOf(context.db, item.id),
			mayCheck: may(context.actor.role, 'inspect')
		};
	});

const attempt = z.object({
	inlet: z.enum(Object.keys(BLOCKING) as [Inlet, ...Inlet[]]),
	felt: z.enum(Object.keys(FELT) as [Felt, ...Felt[]])
});
const body = z.object({
	id: clientId,
	wearer: z.string().max(200),
	attempts: jsonText('The attempts did not arrive whole.', 4000).pipe(z.array(attempt))
});

export const actions: Actions = {
	default: (event) =>
		action(async () => {
			const input = parse(body, await formBody(event.request));
			await saveSealCheck(contextOf(event), { ...input, tag: event.params.tag });
			return { kept: true };
		})
};
