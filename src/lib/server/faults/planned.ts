import { stationOfRepair } from '../../../core/data/repair-choice.ts';
import type { Context } from '../kernel/context.ts';
import { write } from '../kernel/write.ts';
import { itemByTag, refuseRetired } from '../register/items.ts';
import { openDefect } from './faults.ts';
import { beginJob, findRepair, requireFamilyHas } from './jobs.ts';

/**
 * Starts a job that a rule asks for: the life of what it changes is over, which is written down as what was found, so
 * that the item is held, mended, proved and released like any other.
 */
export function startPlannedJob(
	context: Context,
	input: { id: string; tag: string; repair: string }
): Promise<{ defectId: string }> {
	const { id, ...content } = input;
	return write(context, 'repair', { id, content }, async (at) => {
		const { item: found } = await itemByTag(at.tx, input.tag);
		refuseRetired(found, 'repair');
		const repair = findRepair(input.repair);
		await requireFamilyHas(at.tx, found.id, repair);
		const { id: defectId } = await openDefect(at, {
			id: crypto.randomUUID(),
			itemId: found.id,
			station: stationOfRepair(repair.key, found.family),
			code: 'OVER',
			note: `${repair.name}, on schedule`
		});
		await beginJob(at, { id, itemId: found.id, repair: repair.key, defectIds: [defectId] });
		return { defectId };
	});
}
