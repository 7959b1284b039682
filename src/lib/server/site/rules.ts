import { and, eq, isNull } from 'drizzle-orm';
import { FAMILIES } from '../../../core/data/families.ts';
import { dueMinutes } from '../../../core/plan/agenda.ts';
import { checkRule } from '../../../core/plan/rule-check.ts';
import { familyHas, holdsFor, rulesFor, rulesOf } from '../../../core/plan/rule-scope.ts';
import {
	type IntervalRule,
	RULE_LEVELS,
	type RuleWhat,
	ruleWords,
	whatWords
} from '../../../core/plan/rules.ts';
import { OFFERED_RULES, SHIPPED_RULES } from '../../../core/plan/shipped-rules.ts';
import { REPAIRS } from '../../../core/data/repairs.ts';
import { findingsOf, type ItemState, summary } from '../../../core/readiness/findings.ts';
import type { Connection } from '../db/client.ts';
import { allItemIds } from '../db/queries/items.ts';
import { dueRule, itemModel, place } from '../db/schema/index.ts';
import { type Context, todayOf } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import { asRule, everyColumns, loadSite, type Site } from '../kernel/site.ts';
import { type Work, write } from '../kernel/write.ts';
import { loadFacts } from '../readiness/facts.ts';
import { rebuildAll } from '../readiness/rebuild-all.ts';

/** Items whose facts are read together. */
const CHUNK = 500;
/** Beyond this share of its items overdue at once, a rule has to be meant. Site default. */
const MOST_OVERDUE = 0.5;

export interface RuleInput {
	requestId: string;
	id: string;
	/** 0 for a new rule; else the version that the page was loaded with. */
	version: number;
	rule: Omit<IntervalRule, 'origin' | 'key'>;
	reason: string;
	/** That most of the site becomes overdue is meant. */
	meant: boolean;
}

/** Everything that a rule can ask for, with the kinds that can have it. */
const RULE_CHOICES = (
	[
		['inspection', ['']],
		['bench test', ['']],
		['list', RULE_LEVELS],
		['service', REPAIRS.filter(({ retires }) => !retires).map(({ key }) => key)]
	] as [RuleWhat, readonly string[]][]
).flatMap(([what, details]) =>
	details.map((detail) => ({
		what,
		detail,
		name: whatWords(what, detail),
		families: FAMILIES.filter(({ family }) => familyHas(family, what, detail)).map(
			({ family, plural }) => ({ family, plural })
		)
	}))
);

/** Names that rules are said with. */
async function namesOf(
	db: Connection,
	rules: readonly Pick<IntervalRule, 'modelId' | 'placeId'>[]
) {
	const [models, places] = await Promise.all([
		rules.some((rule) => rule.modelId)
			? db.select({ id: itemModel.id, name: itemModel.name }).from(itemModel)
			: [],
		rules.some((rule) => rule.placeId)
			? db.select({ id: place.id, name: place.name }).from(place)
			: []
	]);
	return ({ modelId, placeId }: Pick<IntervalRule, 'modelId' | 'placeId'>) => ({
		model: models.find(({ id }) => id === modelId)?.name,
		place: places.find(({ id }) => id === placeId)?.name
	});
}

/** Rules that hold at the site, in words: those shipped with its rule set, whether one takes their place, and its own. */
export async function rulesPage({ db, site }: Pick<Context, 'db' | 'site'>) {
	const own = await db.select().from(dueRule).where(isNull(dueRule.endedOn));
	const names = await namesOf(db, own);
	return {
		shipped: SHIPPED_RULES[site.ruleSet].map((rule) => ({
			key: rule.key,
			what: rule.what,
			words: ruleWords(rule),
			origin: rule.origin,
			replaced: own.some(({ replaces }) => replaces === rule.key)
		})),
		/** What many sites have and this one has not. */
		offered: OFFERED_RULES.filter((rule) => !own.some((row) => sameRule(asRule(row), rule))).map(
			(rule) => ({ ...rule, families: [...rule.families], words: ruleWords(rule) })
		),
		own: own.map((row) => ({
			...asRule(row),
			version: row.version,
			reason: row.reason,
			words: ruleWords(asRule(row), names(row))
		})),
		choices: RULE_CHOICES,
		models: await db
			.select({ id: itemModel.id, name: itemModel.name, family: itemModel.family })
			.from(itemModel)
			.orderBy(itemModel.name),
		places: await db
			.select({ id: place.id, name: place.name })
			.from(place)
			.where(isNull(place.closedOn))
			.orderBy(place.name)
	};
}

/** Whether a rule of the site is one that is offered, however often it asks. */
const sameRule = (own: IntervalRule, offered: IntervalRule): boolean =>
	own.what === offered.what &&
	own.detail === offered.detail &&
	'after' in own.every === 'after' in offered.every &&
	(!('after' in own.every) ||
		!('after' in offered.every) ||
		own.every.after === offered.every.after) &&
	(own.families.length === 0 || offered.families.every((family) => own.families.includes(family)));

/** What would become of the items of a site under other rules. */
export interface RulePreview {
	/** Items in use that the changed rule looks at. */
	items: number;
	/** Items that become due, or overdue, that were not. */
	due: number;
	overdue: number;
	/** The same by place, where any do. */
	places: { place: string; due: number; overdue: number }[];
	/** Work at the bench that it brings at once. */
	benchMinutes: number;
}

/** Works out what becomes due and overdue when the rules of the site are others; nothing is written. */
async function previewOf(
	db: Connection,
	site: Site,
	next: readonly IntervalRule[],
	changed: IntervalRule,
	asOf: string
): Promise<RulePreview> {
	const [before, after] = [site.rules, next].map((own) => rulesOf(site.ruleSet, own));
	const ids = await allItemIds(db);
	const byPlace = new Map<string, { due: number; overdue: number }>();
	let items = 0;
	for (let i = 0; i < ids.length; i += CHUNK) {
		const chunk = ids.slice(i, i + CHUNK);
		// What either of them looks at is read.
		const known = await loadFacts(db, chunk, { ...site, rules: [...site.rules, ...next] });
		const asked = new Set(chunk);
		for (const one of known.values()) {
			if (!asked.has(one.id) || one.facts.retiredOn) continue;
			if (holdsFor(one.subject, changed)) items++;
			const state = (rules: readonly IntervalRule[]): ItemState => {
				const facts = { ...one.facts, rules: rulesFor(one.subject, rules) };
				return summary(findingsOf(facts, site.ruleSet, asOf), asOf).state;
			};
			const [was, is] = [state(before ?? []), state(after ?? [])];
			if (was === is || (is !== 'due' && is !== 'overdue')) continue;
			const here = byPlace.get(one.placeId) ?? { due: 0, overdue: 0 };
			here[is]++;
			byPlace.set(one.placeId, here);
		}
	}
	const names = await db.select({ id: place.id, name: place.name }).from(place);
	const places = [...byPlace]
		.map(([id, counts]) => ({ place: names.find((row) => row.id === id)?.name ?? '', ...counts }))
		.sort((a, b) => b.overdue + b.due - (a.overdue + a.due) || a.place.localeCompare(b.place));
	const sum = (what: 'due' | 'overdue') => places.reduce((n, row) => n + row[what], 0);
	const [due, overdue] = [sum('due'), sum('overdue')];
	return { items, due, overdue, places, benchMinutes: (due + overdue) * dueMinutes(changed.what) };
}

/** @throws Refusal at what cannot be */
async function checked(
	db: Connection,
	site: Site,
	input: Omit<RuleInput, 'requestId'>
): Promise<IntervalRule> {
	const { rule, id, reason } = input;
	const known = FAMILIES.map(({ family }) => family);
	const stray = rule.families.find((family) => !known.includes(family));
	if (stray) throw new Refusal('invalid', `There is no kind of equipment “${stray}”.`, 'families');
	if (rule.modelId) {
		const [model] = await db.select().from(itemModel).where(eq(itemModel.id, rule.modelId));
		if (!model) throw new Refusal('invalid', 'There is no such model.', 'modelId');
		if (rule.families.length && !rule.families.includes(model.family))
			throw new Refusal('invalid', `${model.name} is of another kind.`, 'modelId');
	}
	if (rule.placeId) {
		const [found] = await db.select().from(place).where(eq(place.id, rule.placeId));
		if (!found || found.closedOn) throw new Refusal('invalid', 'Choose a place in use.', 'placeId');
	}
	return checkRule({ ...rule, key: id }, site.ruleSet, reason);
}

/** The rules of the site with one of them changed or added. */
const withRule = (site: Site, rule: IntervalRule) => [
	...site.rules.filter(({ key }) => key !== rule.key),
	rule
];

/** What a changed rule would do, before it is kept. */
export async function previewRule(context: Context, input: RuleInput): Promise<RulePreview> {
	requirePermission(context.actor.role, 'keep the site');
	const { db } = context;
	const site = await loadSite(db);
	const rule = await checked(db, site, input);
	return previewOf(db, site, withRule(site, rule), rule, todayOf(context));
}

/**
 * Keeps a rule of the site and works every item out by it.
 * @throws Refusal where it cannot be, and where most of the site becomes overdue and that is not meant
 */
export async function saveRule(context: Context, input: RuleInput): Promise<void> {
	const { requestId, ...content } = input;
	await write(context, 'keep the site', { id: requestId, content }, (at) => putRule(at, input));
	await rebuildAll({ ...context, site: await loadSite(context.db) });
}

/** Puts a rule of the site down, within a write; every item is worked out by it afterwards. */
export async function putRule(at: Work, input: Omit<RuleInput, 'requestId'>): Promise<void> {
	const { tx } = at;
	const held = await lockRule(at, input);
	const site = await loadSite(tx);
	const rule = await checked(tx, site, input);
	if (!input.meant) {
		const { items, overdue } = await previewOf(tx, site, withRule(site, rule), rule, at.today);
		if (items > 0 && overdue > items * MOST_OVERDUE)
			throw new Refusal(
				'invalid',
				`${overdue} of ${items} items would be overdue at once and not to be used. Tick that it is meant, or give it a longer interval.`,
				'meant'
			);
	}
	const { every, key: _key, origin: _origin, ...rest } = rule;
	const values = {
		...rest,
		families: [...rule.families],
		...everyColumns(every),
		reason: input.reason.trim()
	};
	const names = await namesOf(tx, [rule, ...(held ? [held] : [])]);
	if (held)
		await tx
			.update(dueRule)
			.set({ ...values, version: held.version + 1 })
			.where(eq(dueRule.id, held.id));
	else await tx.insert(dueRule).values({ id: input.id, ...values });
	at.record('rule.made', {
		of: input.id,
		payload: {
			rule: ruleWords(rule, names(rule)),
			reason: values.reason,
			before: held ? ruleWords(asRule(held), names(held)) : null
		}
	});
}

/** Ends a rule of the site; what it took the place of holds again. */
export async function endRule(
	context: Context,
	input: { requestId: string; id: string; version: number; reason: string }
): Promise<void> {
	const { requestId, ...content } = input;
	if (!input.reason.trim())
		throw new Refusal('invalid', 'Say why it is not needed any more.', 'endReason');
	await write(context, 'keep the site', { id: requestId, content }, async (at) => {
		const held = await lockRule(at, input);
		if (!held) throw new Refusal('not found', 'There is no such rule.');
		const names = await namesOf(at.tx, [held]);
		await at.tx
			.update(dueRule)
			.set({ endedOn: at.today, version: held.version + 1 })
			.where(eq(dueRule.id, held.id));
		at.record('rule.ended', {
			of: held.id,
			payload: { rule: ruleWords(asRule(held), names(held)), reason: input.reason.trim() }
		});
	});
	await rebuildAll({ ...context, site: await loadSite(context.db) });
}

/** The rule of a write, which nobody else changes until it ends. @throws Refusal where it was changed meanwhile */
async function lockRule({ tx }: Work, { id, version }: { id: string; version: number }) {
	const [held] = await tx
		.select()
		.from(dueRule)
		.where(and(eq(dueRule.id, id)))
		.for('update');
	if (held?.endedOn) throw new Refusal('conflict', 'This rule was ended meanwhile.');
	if ((held?.version ?? 0) !== version)
		throw new Refusal(
			'conflict',
			'The rule was changed meanwhile. Nothing was written over; load it again.'
		);
	return held;
}
