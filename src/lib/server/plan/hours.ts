import { and, eq, isNull } from 'drizzle-orm';
import { user, workHours } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
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
