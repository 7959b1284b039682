import { eq, isNull } from 'drizzle-orm';
import type { Message } from '../../../core/notices/digest.ts';
import type { Day } from '../../../core/plan/calendar.ts';
import type { Connection } from '../db/client.ts';
import { noticeChoice, place, user } from '../db/schema/index.ts';
import { may } from '../kernel/permissions.ts';

/** People who may be told, with what they chose and the places that they answer for. */
export async function readers(db: Connection) {
	const people = await db
		.select({
			id: user.id,
			name: user.name,
			email: user.email,
			role: user.role,
			choice: noticeChoice
		})
		.from(user)
		.leftJoin(noticeChoice, eq(noticeChoice.userId, user.id))
		.where(isNull(user.disabledAt))
		.orderBy(user.id);
	const places = await db
		.select({ id: place.id, responsible: place.responsible })
		.from(place)
		.where(isNull(place.closedOn));
	return people.map(({ choice, ...person }) => ({
		...person,
		digest: choice?.digest ?? true,
		urgent: choice?.urgent ?? true,
		wholeSite: may(person.role, 'inspect'),
		placeIds: places.flatMap(({ id, responsible }) => (responsible === person.id ? [id] : []))
	}));
}

/** A message to one person as it waits to be handed over. */
export const waitingFor = (
	to: { id: string; email: string },
	message: Message,
	day: Day,
	now: Date
) => ({
	id: crypto.randomUUID(),
	userId: to.id,
	address: to.email,
	subject: message.subject,
	body: message.text,
	day,
	madeAt: now,
	nextTryAt: now
});
