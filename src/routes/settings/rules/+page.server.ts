import { z } from 'zod';
import { RULE_WHATS } from '$core/plan/rules';
import { USE_PATTERNS } from '$core/site/places';
import { requirePermission } from '$lib/server/kernel/permissions';
import { endRule, previewRule, type RuleInput, rulesPage, saveRule } from '$lib/server/site/rules';
import { clientId, contextOf, formAction, page, requested } from '$lib/server/web/request';
import { forgetVisit } from '$lib/server/web/visits';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		requirePermission(context.actor.role, 'keep the site');
		return rulesPage(context);
	});

const version = z.coerce.number().int().min(0);
const orNone = z
	.string()
	.max(60)
	.default('')
	.transform((text) => text || null);

const rule = z
	.object({
		...requested,
		id: clientId,
		version,
		what: z.enum(RULE_WHATS, 'Choose what is done.'),
		every: z.coerce.number('How often: type a number.'),
		unit: z.enum(['days', 'months']),
		windowDays: z.coerce.number('Days before: type a number.'),
		families: z.array(z.string().max(40)).max(40).default([]),
		modelId: orNone,
		usePattern: orNone.pipe(z.enum(USE_PATTERNS).nullable()),
		placeId: orNone,
		replaces: orNone,
		reason: z.string().max(300, 'At most 300 characters.').default(''),
		meant: z.literal('on').optional()
	})
	.transform(
		({ requestId, id, version: seen, reason, meant, every: n, unit, ...rest }): RuleInput => ({
			requestId,
			id,
			version: seen,
			reason,
			meant: meant === 'on',
			rule: { ...rest, every: unit === 'days' ? { days: n } : { months: n } }
		})
	);

export const actions: Actions = {
	preview: formAction(rule, async (event: RequestEvent, input) => ({
		of: input.id,
		preview: await previewRule(contextOf(event), input)
	})),
	save: formAction(rule, async (event: RequestEvent, input) => {
		await saveRule(contextOf(event), input);
		forgetVisit(event.request.headers);
		return { kept: true };
	}),
	end: formAction(
		z.object({ ...requested, id: clientId, version, reason: z.string().max(300).default('') }),
		async (event: RequestEvent, input) => {
			await endRule(contextOf(event), input);
			forgetVisit(event.request.headers);
			return { ended: true };
		}
	)
};
