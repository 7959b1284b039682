import { eq, inArray } from 'drizzle-orm';
import { urgentMessage, type UrgentFacts } from '../../../core/notices/digest.ts';
import { item, notice, place } from '../db/schema/index.ts';
import type { Work } from '../kernel/write.ts';
import { postHere } from './mail.ts';
import { readers, waitingFor } from './readers.ts';

/** Tells everybody who works on the equipment at once, in the write of what happened: with it or not at all. */
export async function tellAtOnce(
	at: Work,
	facts: Omit<UrgentFacts, 'site' | 'items'> & { itemIds: readonly string[] }
): Promise<void> {
	const { tx, site, now, today } = at;
	if (!postHere()) return;
	const wanting = (await readers(tx)).filter(({ urgent, wholeSite }) => urgent && wholeSite);
	if (wanting.length === 0) return;
	const items = facts.itemIds.length
		? await tx
				.select({ tag: item.tag, place: place.name })
				.from(item)
				.innerJoin(place, eq(place.id, item.placeId))
				.where(inArray(item.id, [...facts.itemIds]))
				.orderBy(item.tag)
		: [];
	const message = urgentMessage({ ...facts, site: site.name, items }, postHere()?.address ?? '');
	await tx
		.insert(notice)
		.values(
			wanting.map((to) => ({ ...waitingFor(to, message, today, now), kind: 'urgent' as const }))
		);
}
