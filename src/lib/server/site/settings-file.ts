import { asc, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { BLOCKING, type Inlet, SEAL_WAYS, type SealWay } from '../../../core/data/blocking.ts';
import { FAMILIES } from '../../../core/data/families.ts';
import { EVENT_WHATS } from '../../../core/plan/events.ts';
import { checkRule } from '../../../core/plan/rule-check.ts';
import { RULE_WHATS } from '../../../core/plan/rules.ts';
import {
	AGENTS,
	CARD_NUMBERS,
	type CardNumber,
	checkCard
} from '../../../core/register/model-card.ts';
import { checkWorkCalendar } from '../../../core/site/calendar.ts';
import {
	PLACE_KINDS,
	STORAGE_TRAITS,
	TEST_HOUSE_WORK,
	USE_PATTERNS
} from '../../../core/site/places.ts';
import { checkTimeZone } from '../../../core/site/time-zone.ts';
import { dueRule, itemModel, place, placeFloor, site, testHouse } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import { asRule, everyColumns, loadSite } from '../kernel/site.ts';
import { write } from '../kernel/write.ts';
import { siteBasics, siteCalendar, siteSchools } from './settings.ts';

const FORMAT = 'grevan settings';
const name = z.string().trim().min(1).max(80);
const family = z.enum(FAMILIES.map((one) => one.family) as [string, ...string[]]);
const whole = (least: number, most: number) => z.number().int().min(least).max(most);

/** The settings of a site as a file: everything but its name, its people and what it has. */
/** A card with its figures, each within its range. */
const modelCard = z.strictObject({
	...(Object.fromEntries(
		CARD_NUMBERS.map(({ key, least, most }) => [key, z.number().min(least).max(most).optional()])
	) as Record<CardNumber, z.ZodOptional<z.ZodNumber>>),
	holdBelow: z.boolean().optional(),
	agents: z.array(z.enum(AGENTS)).max(AGENTS.length).optional(),
	keepDry: z.array(z.string().max(60)).max(60).optional()
});

const settingsFile = z.strictObject({
	format: z.literal(FORMAT, 'This is no file with the settings of a site.'),
	version: z.literal(1, 'This file is of another version.'),
	site: siteBasics
		.omit({ name: true })
		.extend(siteSchools.shape)
		.extend({
			...siteCalendar.shape,
			workDays: z.array(whole(1, 7)).max(7)
		}),
	places: z
		.array(
			z.strictObject({
				name,
				kind: z.enum(PLACE_KINDS),
				storage: z.array(z.enum(STORAGE_TRAITS)).max(STORAGE_TRAITS.length),
				floors: z.partialRecord(family, whole(0, 100_000))
			})
		)
		.max(2000),
	models: z
		.array(
			z.strictObject({
				family,
				maker: name,
				name,
				mount: name,
				filterCount: whole(0, 4),
				ratedBar: whole(1, 1000).nullable(),
				holdDropBar: z.number().min(0).max(100).nullable(),
				donning: z
					.strictObject({
						straps: z.array(z.string().max(300)).max(30),
						inlet: z.enum(Object.keys(BLOCKING) as [Inlet, ...Inlet[]]).nullable(),
						holdSeconds: z.number().min(1).max(120).nullable(),
						ways: z
							.array(z.enum(Object.keys(SEAL_WAYS) as [SealWay, ...SealWay[]]))
							.max(2)
							.optional()
					})
					.nullable(),
				approved: z.array(name).max(200),
				makerLines: z
					.array(z.strictObject({ station: z.string().max(60), text: z.string().max(600) }))
					.max(60),
				card: modelCard.default({})
			})
		)
		.max(2000),
	rules: z
		.array(
			z.strictObject({
				what: z.enum(RULE_WHATS),
				/** Of a list its level, of a job its key. */
				detail: z.string().max(60).default(''),
				every: z.union([
					z.strictObject({ months: whole(1, 120) }),
					z.strictObject({ days: whole(1, 3660) }),
					z.strictObject({ uses: whole(1, 10_000) }),
					z.strictObject({ hours: whole(1, 10_000) }),
					z.strictObject({ cycles: whole(1, 20_000) }),
					z.strictObject({ after: z.enum(EVENT_WHATS) })
				]),
				windowDays: whole(0, 3660),
				families: z.array(family).max(40),
				model: name.nullable(),
				usePattern: z.enum(USE_PATTERNS).nullable(),
				place: name.nullable(),
				replaces: z.string().max(60).nullable(),
				reason: z.string().max(300)
			})
		)
		.max(500),
	testHouses: z
		.array(
			z.strictObject({
				name,
				takes: z.array(z.enum(TEST_HOUSE_WORK)).min(1).max(TEST_HOUSE_WORK.length),
				turnaroundDays: whole(1, 366)
			})
		)
		.max(200)
});
export type SettingsFile = z.output<typeof settingsFile>;

/** The settings of the site, to start another one with. */
export async function writeSettings({
	db,
	actor
}: Pick<Context, 'db' | 'actor'>): Promise<SettingsFile> {
	requirePermission(actor.role, 'keep the site');
	const [own, places, floors, models, rules, houses] = await Promise.all([
		loadSite(db),
		db.select().from(place).where(isNull(place.closedOn)).orderBy(asc(place.name)),
		db.select().from(placeFloor),
		db.select().from(itemModel).where(isNull(itemModel.withdrawnOn)).orderBy(asc(itemModel.name)),
		db.select().from(dueRule).where(isNull(dueRule.endedOn)).orderBy(asc(dueRule.id)),
		db.select().from(testHouse).where(isNull(testHouse.closedOn)).orderBy(asc(testHouse.name))
	]);
	const named = (of: readonly { id: string; name: string }[], id: string | null) =>
		of.find((one) => one.id === id)?.name ?? null;
	return {
		format: FORMAT,
		version: 1,
		site: {
			timeZone: own.timeZone,
			ruleSet: own.ruleSet,
			codeScheme: own.codeScheme,
			pressureUnit: own.pressureUnit,
			temperatureUnit: own.temperatureUnit,
			sealWays: own.sealWays,
			setSchool: own.setSchool,
			workDays: own.workDays,
			benchMinutes: own.benchMinutes,
			holidays: own.holidays
		},
		places: places.map(({ id, name: called, kind, storage }) => ({
			name: called,
			kind,
			storage,
			floors: Object.fromEntries(
				floors
					.filter((row) => row.placeId === id && row.floor > 0)
					.map((row) => [row.family, row.floor])
			)
		})),
		models: models.map(
			({ id: _, version: _v, withdrawnOn: _on, withdrawnWhy: _why, donning, ...model }) => ({
				...model,
				donning: donning && {
					straps: donning.straps,
					inlet: donning.inlet,
					holdSeconds: donning.holdSeconds,
					...(donning.ways ? { ways: donning.ways } : {})
				}
			})
		),
		rules: rules
			// One for a place or a model that is gone says nothing to another site.
			.filter(
				(rule) =>
					(!rule.placeId || named(places, rule.placeId)) &&
					(!rule.modelId || named(models, rule.modelId))
			)
			.map((rule) => ({
				what: rule.what,
				detail: rule.detail,
				every: asRule(rule).every,
				windowDays: rule.window,
				families: rule.families,
				model: named(models, rule.modelId),
				usePattern: rule.usePattern,
				place: named(places, rule.placeId),
				replaces: rule.replaces,
				reason: rule.reason
			})),
		testHouses: houses.map(({ name: called, takes, turnaroundDays }) => ({
			name: called,
			takes,
			turnaroundDays
		}))
	};
}

/** Reads a file with settings. @throws Refusal at the file, naming the place in it that is wrong */
function readSettings(bytes: Uint8Array): SettingsFile {
	let json: unknown;
	try {
		json = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
	} catch {
		throw new Refusal('invalid', 'This is no file with the settings of a site.', 'file');
	}
	const read = settingsFile.safeParse(json);
	if (!read.success) {
		const [first] = read.error.issues;
		throw new Refusal(
			'invalid',
			`${first?.path.length ? `At ${first.path.join('.')}: ` : ''}${first?.message ?? ''} Nothing was taken.`,
			'file'
		);
	}
	return read.data;
}

/**
 * Starts a site with the settings of another: its rules, places, models, intervals and test houses, all or nothing.
 * @throws Refusal where this one has places or models already, and where the file is wrong
 */
export async function startFromFile(
	context: Context,
	input: { requestId: string; bytes: Uint8Array }
): Promise<void> {
	const { requestId, bytes } = input;
	const file = readSettings(bytes);
	const timeZone = checkTimeZone(file.site.timeZone);
	const calendar = checkWorkCalendar(file.site);
	await write(context, 'keep the site', { id: requestId, content: file }, async (at) => {
		const { tx } = at;
		const [held] = await tx.select().from(site).for('update');
		if (!held || (await tx.$count(place)) + (await tx.$count(itemModel)) > 0)
			throw new Refusal(
				'conflict',
				'This site has places or models of its own already: a copy would mix them.',
				'file'
			);
		await tx.update(site).set({
			...file.site,
			timeZone,
			...calendar,
			version: held.version + 1
		});
		const idOf = { places: new Map<string, string>(), models: new Map<string, string>() };
		for (const { floors, ...one } of file.places) {
			const id = once(idOf.places, one.name, 'places');
			await tx.insert(place).values({ ...one, id });
			for (const [of, floor] of Object.entries(floors))
				await tx.insert(placeFloor).values({ placeId: id, family: of, floor: floor ?? 0 });
		}
		for (const model of file.models)
			await tx.insert(itemModel).values({
				...model,
				card: checkCard(model.card, model.family),
				id: once(idOf.models, model.name, 'models')
			});
		for (const [
			i,
			{ every, windowDays, model, place: at_, reason, ...rest }
		] of file.rules.entries()) {
			const rule = { ...rest, window: windowDays };
			const scope = {
				modelId: known(idOf.models, model, `rules.${i}.model`),
				placeId: known(idOf.places, at_, `rules.${i}.place`)
			};
			checkRule({ ...rule, ...scope, every, key: String(i) }, file.site.ruleSet, reason);
			await tx.insert(dueRule).values({
				...rule,
				...scope,
				reason,
				id: crypto.randomUUID(),
				...everyColumns(every)
			});
		}
		const houses = new Map<string, string>();
		for (const house of file.testHouses)
			await tx.insert(testHouse).values({ ...house, id: once(houses, house.name, 'testHouses') });
		const { places, models, rules, testHouses } = file;
		at.record('site.copied', {
			of: '1',
			payload: {
				places: places.length,
				models: models.length,
				rules: rules.length,
				testHouses: testHouses.length
			}
		});
	});
}

/** A new id for a name. @throws Refusal where the name stands there twice */
function once(ids: Map<string, string>, called: string, where: string): string {
	if (ids.has(called))
		throw new Refusal('invalid', `At ${where}: “${called}” stands there twice.`, 'file');
	const id = crypto.randomUUID();
	ids.set(called, id);
	return id;
}

/** The id of a name. @throws Refusal where the file has none of that name */
function known(ids: Map<string, string>, called: string | null, where: string): string | null {
	if (called === null) return null;
	const id = ids.get(called);
	if (!id) throw new Refusal('invalid', `At ${where}: “${called}” is not in the file.`, 'file');
	return id;
}
