import { z } from 'zod';
import { EVENT_WHATS, type EventWhat } from '$core/plan/events';
import { type Every, RULE_WHATS } from '$core/plan/rules';
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
		const asked = event.url.searchParams.get('model') ?? '';
		const rules = await rulesPage(context);
		/** The model that a new rule is begun for, where its page asked for one. */
		return { ...rules, forModel: rules.models.find(({ id }) => id === asked) ?? null };
	});

const version = z.coerce.number().int().min(0);
const orNone = z
	.string()
	.max(60)
	.default('')
	.transform((text) => text || null);

/** What an interval is counted in, or after what it comes. */
const COUNTED = ['days', 'months', 'uses', 'hours', 'cycles'] as const;
const UNITS = [
	...COUNTED,
	...EVENT_WHATS.map((event): `after ${EventWhat}` => `after ${event}`)
] as const;

function everyIn(unit: (typeof UNITS)[number], n: number): Every {
	const after = EVENT_WHATS.find((event) => unit === `after ${event}`);
	if (after) return { after };
	return {
		days: { days: n },
		months: { months: n },
		uses: { uses: n },
		hours: { hours: n },
		cycles: { cycles: n }
	}[unit as (typeof COUNTED)[number]];
}

const rule = z
	.object({
		...requested,
		id: clientId,
		version,
		what: z.enum(RULE_WHATS, 'Choose what is done.'),
		every: z.coerce.number('How often: type a number.'),
		detail: z.string().max(60).default(''),
		unit: z.enum(UNITS, 'Choose in what it is counted.'),
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
		({
			requestId,
			id,
			version: seen,
			reason,
			meant,
			every: n,
			unit,
			windowDays: window,
			...rest
		}): RuleInput => ({
			requestId,
			id,
			version: seen,
			reason,
			meant: meant === 'on',
			rule: { ...rest, window, every: everyIn(unit, n) }
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
