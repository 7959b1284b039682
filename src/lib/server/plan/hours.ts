import { and, asc, eq, isNull } from 'drizzle-orm';
import { user, workHours } from '../db/schema/index.ts';
import type { Context, Reader } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';

export interface SetHours {
	requestId: string;
	userId: string;
	/** Minutes of plan work, Monday to Sunday. */
	minutes: number[];
}

/** Sets how many minutes of plan work somebody has on each weekday; all 0: they are in no plan. */
export function setHours(context: Context, input: SetHours): Promise<void> {
	const { requestId, userId, minutes } = input;
	return write(
		context,
		'keep working hours',
		{ id: requestId, content: { userId, minutes } },
		async (at) => {
			const [person] = await at.tx
				.select({ name: user.name })
				.from(user)
				.where(and(eq(user.id, userId), isNull(user.disabledAt)));
			if (!person) throw new Refusal('invalid', 'Choose whose hours they are.', 'userId');
			const [held] = await at.tx.select().from(workHours).where(eq(workHours.userId, userId));
			if (held && held.minutes.join() === minutes.join()) return;
			await at.tx
				.insert(workHours)
				.values({ userId, minutes })
				.onConflictDoUpdate({
					target: workHours.userId,
					set: { minutes, version: (held?.version ?? 0) + 1 }
				});
			at.record('work-hours.set', { of: 'plan', payload: { person: person.name, minutes } });
		}
	);
}

/** Everybody who may come in, with their minutes of plan work; null: those of the site where they are a technician. */
export async function listAccounts({ db, site }: Reader) {
	const rows = await db
		.select({ id: user.id, name: user.name, role: user.role, own: workHours.minutes })
		.from(user)
		.leftJoin(workHours, eq(workHours.userId, user.id))
		.where(isNull(user.disabledAt))
		.orderBy(asc(user.name));
	return rows.map(({ own, role, ...person }) => ({
		...person,
		own: own !== null,
		minutes:
			own ??
			Array.from({ length: 7 }, (_, i) =>
				role === 'technician' && site.workDays.includes(i + 1) ? site.benchMinutes : 0
			)
	}));
}
