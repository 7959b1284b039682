import { stockForPlan } from '$lib/server/filters/opening';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const id = parse(clientId, event.params.id);
		const { page: plan, judged } = await stockForPlan(contextOf(event), id);
		const byModel = new Map<string, (typeof judged)[number]>();
		for (const row of judged)
			if (row.life && (row.verdict?.outcome === 'serves' || !byModel.has(row.model.id)))
				byModel.set(row.model.id, row);
		return {
			plan: { id: plan.plan.id, task: plan.plan.task, place: plan.place, number: plan.plan.number },
			facts: plan.inForce,
			contaminants: plan.decision.contaminants,
			outcome: plan.decision.outcome,
			models: [...byModel.values()].map((row) => ({
				id: row.model.id,
				name: row.model.name,
				codeEn: row.model.codeEn,
				codeUs: row.model.codeUs,
				bed: row.model.bed,
				serves: row.verdict?.outcome === 'serves',
				refusal: row.verdict?.reasons[0]?.text ?? null,
				minutes: row.life?.changeAfterMin ?? null,
				singleUse: row.life?.singleUse ?? false
			}))
		};
	});
