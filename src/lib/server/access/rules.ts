import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { site } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { ROLES } from '../kernel/permissions.ts';
import { requirePassword } from '../kernel/proof.ts';
import { type Requested, write } from '../kernel/write.ts';

const whole = (name: string, least: number, most: number) =>
	z.coerce
		.number(`${name}: type a whole number.`)
		.int(`${name}: type a whole number.`)
		.min(least, `${name}: ${least} at least.`)
		.max(most, `${name}: ${most} at most.`);

/** What a site may choose about who gets in and who signs. */
export const accessRules = z.object({
	twoPeople: z.boolean(),
	idleMinutes: whole('Minutes without use', 1, 720),
	wholeHours: whole('Hours in all', 1, 168),
	proofMinutes: whole('Minutes before signing', 1, 120),
	twoStepRoles: z.array(z.enum(ROLES)).max(4)
});

/** Changes the rules of access of the site. @throws Refusal without the password of who keeps the accounts */
export async function saveAccessRules(
	context: Context,
	request: Requested,
	rules: z.output<typeof accessRules>
): Promise<void> {
	requirePassword(context, 'change the rules of access');
	await write(context, 'keep accounts', request, async ({ tx, record }) => {
		await tx.update(site).set(rules).where(eq(site.id, 1));
		record('site.access', { of: '1', payload: rules });
	});
}
