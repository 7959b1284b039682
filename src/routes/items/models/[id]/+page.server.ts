import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { BLOCKING, type Inlet } from '$core/data/blocking';
import { FAMILIES } from '$core/data/families';
import { recordOf } from '$core/data/family-records';
import { MODEL_TEMPLATES } from '$core/data/model-templates';
import { familyHas, rulesOf } from '$core/plan/rule-scope';
import { ruleWords } from '$core/plan/rules';
import {
	AGENTS,
	CARD_NUMBERS,
	type CardNumber,
	cardNumbersOf,
	hasHold,
	type ModelCard
} from '$core/register/model-card';
import type { ModelSaid } from '$core/register/model-sheet';
import { may } from '$lib/server/kernel/permissions';
import { Refusal } from '$lib/server/kernel/refusal';
import { listModels, saveItemModel, withdrawModel } from '$lib/server/register/models';
import { optionalNumber } from '$lib/server/web/form-fields';
import { longForm } from '$lib/server/web/long-form';
import { clientId, contextOf, formAction, page, parse, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

/** What a new model begins with: another one, or a kind of construction. */
const beginning = z.object({
	from: z.string().max(60).catch(''),
	template: z.string().max(60).catch('')
});

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { id } = event.params;
		const models = await listModels(context.db);
		const found = id === 'new' ? null : models.find(({ model }) => model.id === id);
		if (found === undefined) throw new Refusal('not found', 'There is no such model.');
		const model = found?.model ?? null;
		const { from, template } = parse(beginning, Object.fromEntries(event.url.searchParams));
		const copied = models.find((one) => one.model.id === from)?.model;
		const shipped = MODEL_TEMPLATES.find((one) => one.key === template);
		const start: Partial<ModelSaid> | null =
			model ??
			(copied ? { ...copied, name: '' } : null) ??
			(shipped ? { ...shipped, name: '' } : null);
		return {
			model,
			start,
			begun: copied?.name ?? shipped?.name ?? '',
			filled: form.filled(
				{
					family: FAMILIES[0]?.family,
					...start,
					...start?.donning,
					...start?.card,
					ways: start?.donning?.ways?.[0] ?? ''
				},
				`${id} ${from}${template}`
			),
			inUse: found?.inUse ?? 0,
			rules: model
				? rulesOf(context.site.ruleSet, context.site.rules)
						.filter(
							({ families, modelId, what, detail }) =>
								(modelId === null || modelId === model.id) &&
								(families.length === 0 || families.includes(model.family)) &&
								familyHas(model.family, what, detail)
						)
						.map((rule) => ruleWords(rule, { model: rule.modelId ? model.name : undefined }))
				: [],
			families: FAMILIES.map(({ family, name, stations }) => {
				const record = recordOf(family);
				return {
					family,
					name,
					stations: stations.map((s) => ({ key: s.key, name: s.name })),
					inlets: record.inlets.map((key) => ({ key, name: BLOCKING[key].name })),
					carries: record.carries !== null,
					takesParts: record.takesParts,
					washed: record.washed,
					hold: hasHold(family),
					numbers: cardNumbersOf(family).map(({ key, label, unit, hint }) => ({
						key,
						label,
						unit,
						hint
					}))
				};
			}),
			mayEdit: may(context.actor.role, 'edit procedures')
		};
	});

/** The figures of a card as fields; the core knows their ranges. */
const figure = optionalNumber(() => 'A number, or empty.', Number.isFinite);
const figures = Object.fromEntries(CARD_NUMBERS.map(({ key }) => [key, figure])) as Record<
	CardNumber,
	typeof figure
>;

const bar = (least: number, most: number) =>
	optionalNumber(
		() => `A number from ${least} to ${most} bar, or empty.`,
		(value) => value >= least && value <= most
	).transform((value) => value ?? null);
const form = longForm(
	z.object({
		...requested,
		id: clientId,
		version: z.coerce.number().int().min(0),
		...figures,
		holdBelow: z.literal('on').optional(),
		agents: z.array(z.enum(AGENTS)).max(AGENTS.length).default([]),
		keepDry: z.array(z.string().max(40)).max(60).default([]),
		family: z.string().max(40),
		maker: z.string().trim().min(1, 'Name the maker.').max(80),
		name: z.string().trim().min(1, 'Name the model.').max(80),
		mount: z
			.string()
			.trim()
			.min(1, 'Name how it takes its filters, or “none”.')
			.max(80)
			.default('none'),
		ratedBar: bar(1, 400),
		holdDropBar: bar(0.1, 10),
		straps: z
			.string()
			.max(2000)
			.default('')
			.transform((text) => text.split('\n').flatMap((line) => line.trim() || [])),
		inlet: z
			.literal('')
			.transform(() => null)
			.or(z.enum(Object.keys(BLOCKING) as [Inlet, ...Inlet[]], 'Choose how its inlet is blocked.'))
			.default(null),
		holdSeconds: optionalNumber(
			() => 'A number from 3 to 60 s, or empty.',
			(value) => value >= 3 && value <= 60
		).transform((value) => value ?? null),
		ways: z.enum(['', 'in', 'out']).default(''),
		filterCount: z.coerce
			.number('0, 1 or 2 filters.')
			.int('0, 1 or 2 filters.')
			.min(0, '0, 1 or 2 filters.')
			.max(2, '0, 1 or 2 filters.')
			.default(2),
		approved: z
			.string()
			.max(4000)
			.default('')
			.transform((text) => text.split('\n').flatMap((line) => line.trim() || [])),
		stations: z.array(z.string().max(40)).max(100).default([]),
		lines: z.array(z.string().trim().max(300)).max(100).default([])
	})
);

/** The figures of a card that were typed, and what else the form says. */
function cardIn<T extends Partial<Record<CardNumber, number | null | undefined>>>(input: T) {
	const rest = { ...input };
	const card: ModelCard = {};
	for (const { key } of CARD_NUMBERS) {
		const value = input[key];
		if (typeof value === 'number') card[key] = value;
		delete rest[key];
	}
	return [card, rest as Omit<T, CardNumber>] as const;
}

export const actions: Actions = {
	save: form.action(async (event: RequestEvent, input) => {
		const {
			stations,
			lines,
			straps,
			inlet,
			holdSeconds,
			ways,
			holdBelow,
			agents,
			keepDry,
			...rest
		} = input;
		const [card, model] = cardIn(rest);
		const makerLines = lines.flatMap((text, i) =>
			text ? [{ station: stations[i] ?? '', text }] : []
		);
		const said = straps.length > 0 || inlet !== null || holdSeconds !== null || ways !== '';
		const donning = said ? { straps, inlet, holdSeconds, ...(ways ? { ways: [ways] } : {}) } : null;
		await saveItemModel(contextOf(event), {
			...model,
			donning,
			makerLines,
			card: { ...card, agents, keepDry, holdBelow: holdBelow === 'on' }
		});
		redirect(303, '/items/models');
	}),
	withdraw: formAction(
		z.object({ ...requested, why: z.string().max(300) }),
		async (event: RequestEvent, input) => {
			const id = parse(clientId, event.params.id);
			return withdrawModel(contextOf(event), { ...input, id });
		}
	)
};
