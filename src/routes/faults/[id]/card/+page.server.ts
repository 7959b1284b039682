import { repairFor } from '$core/data/repair-choice';
import { repairOf } from '$core/data/repairs';
import { defectPage } from '$lib/server/faults/faults';
import { partsOf } from '$lib/server/faults/fittings';
import { partsFor } from '$lib/server/faults/jobs';
import { todayOf } from '$lib/server/kernel/context';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { db } = context;
		const found = await defectPage(context, parse(clientId, event.params.id));
		const { defect, item } = found;
		const repair = found.job
			? repairOf(found.job.repair)
			: repairFor(defect.code, defect.station, item.family);
		const [parts, fitted] = await Promise.all([
			partsFor(db, repair.key, defect.station, todayOf(context)),
			partsOf(db, item.id)
		]);
		return {
			defect,
			item,
			model: found.model,
			place: found.place,
			reports: found.reports,
			station: found.station,
			job: found.job && {
				startedAt: found.job.startedAt,
				names: found.job.names,
				by: found.job.startedBy
			},
			repair: { name: repair.name, steps: repair.steps, proof: repair.proof },
			parts: parts.map(({ name, quantity, lots }) => ({
				name,
				quantity,
				lots: lots.map(({ lot, location, quantity: left }) => ({ lot, location, left }))
			})),
			fitted: fitted.filter(({ station }) => station === defect.station)
		};
	});
