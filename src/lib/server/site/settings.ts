import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { checkWorkCalendar, WEEKDAYS } from '../../../core/site/calendar.ts';
import { changesBetween, choiceWords } from '../../../core/site/changes.ts';
import {
	CODE_SCHEMES,
	SEAL_SCHOOLS,
	SET_SCHOOLS,
	SHOWN_PRESSURES,
	SHOWN_TEMPERATURES
} from '../../../core/site/choices.ts';
import { checkTimeZone } from '../../../core/site/time-zone.ts';
import { site } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { loadSite, type Site, UNNAMED } from '../kernel/site.ts';
import { write } from '../kernel/write.ts';
import { rebuildAll } from '../readiness/rebuild-all.ts';

const RULE_SETS = ['uk', 'us'] as const;

/** Name, rules and units of a site. */
export const siteBasics = z.object({
	name: z
		.string()
		.trim()
		.min(1, 'Name the site.')
		.max(80, 'At most 80 characters.')
		.refine((name) => name !== UNNAMED.name, 'Give it the name that its people use.'),
	timeZone: z.string().trim().min(1, 'Choose the time zone.').max(60),
	ruleSet: z.enum(RULE_SETS, 'Choose the rule set.'),
	codeScheme: z.enum(CODE_SCHEMES, 'Choose the scheme of filter codes.'),
	pressureUnit: z.enum(SHOWN_PRESSURES, 'Choose the unit.').default('bar'),
	temperatureUnit: z.enum(SHOWN_TEMPERATURES, 'Choose the unit.').default('°C')
});

/** Where practitioners differ: what this site does. */
export const siteSchools = z.object({
	sealWays: z.enum(SEAL_SCHOOLS),
	setSchool: z.enum(SET_SCHOOLS)
});

/** When the bench works. */
export const siteCalendar = z.object({
	workDays: z.array(z.coerce.number().int().min(1).max(7)).max(7).default([]),
	benchMinutes: z.coerce
		.number('Bench work: type minutes.')
		.int('Bench work: whole minutes.')
		.min(1, 'Bench work: one minute at least.')
		.max(14_400, 'Bench work: ten people around the clock at most, 14,400 min.'),
	holidays: z.array(z.object({ on: z.iso.date(), name: z.string().max(60) })).max(400)
});

/** When messages go out. */
export const siteMessages = z.object({
	digestHour: z.coerce
		.number('The hour: type a number.')
		.int('The hour: a whole number.')
		.min(0, 'An hour from 0 to 23.')
		.max(23, 'An hour from 0 to 23.')
});

export type Choices = z.output<typeof siteBasics> &
	z.output<typeof siteSchools> &
	z.output<typeof siteCalendar> &
	z.output<typeof siteMessages>;

/** What each choice is called in the log. */
const NAMES: Record<keyof Choices, string> = {
	name: 'name',
	timeZone: 'time zone',
	ruleSet: 'rule set',
	codeScheme: 'scheme of filter codes',
	pressureUnit: 'unit beside bar',
	temperatureUnit: 'unit beside °C',
	sealWays: 'ways of a seal check',
	setSchool: 'list of a set',
	workDays: 'working days',
	benchMinutes: 'bench minutes a day',
	holidays: 'holidays',
	digestHour: 'hour of the message of the day'
};

function words(key: keyof Choices, value: unknown): string {
	if (key === 'ruleSet' || key === 'codeScheme') return String(value as string).toUpperCase();
	if (key === 'workDays')
		return (value as number[]).map((day) => WEEKDAYS[day - 1]?.slice(0, 3) ?? day).join(' ');
	return choiceWords(value);
}

/**
 * Changes choices of the site; what is left out stays. Recorded with old and new, and signed.
 * @param version of the choices that the page was loaded with
 * @throws Refusal where somebody changed them meanwhile, and where one cannot be
 */
export async function saveSite(
	context: Context,
	input: { requestId: string; version: number; choices: Partial<Choices> }
): Promise<{ version: number }> {
	const { requestId, ...content } = input;
	const asked = { id: requestId, content };
	const { version, moves } = await write(context, 'keep the site', asked, async (at) => {
		const { tx } = at;
		const choices = { ...input.choices };
		if (choices.timeZone) choices.timeZone = checkTimeZone(choices.timeZone);
		const [held] = await tx.select().from(site).where(eq(site.id, 1)).for('update');
		const before = { ...UNNAMED, ...held };
		if (held && before.version !== input.version)
			throw new Refusal(
				'conflict',
				'Somebody changed the settings meanwhile. Nothing was written over; load the page again.'
			);
		const merged: Site = { ...before, ...choices };
		const calendar = checkWorkCalendar(merged);
		const after: Site = { ...merged, ...calendar };
		const changes = changesBetween<Choices>(before as Choices, after as Choices, NAMES, words);
		if (changes.length === 0) return { version: before.version, moves: false };
		const version = before.version + 1;
		const kept = { ...choices, ...calendar, version };
		if (held) await tx.update(site).set(kept).where(eq(site.id, 1));
		else await tx.insert(site).values({ ...UNNAMED, ...kept });
		at.record('site.changed', { of: '1', payload: { changes } });
		const moves = before.ruleSet !== after.ruleSet || before.timeZone !== after.timeZone;
		return { version, moves };
	});
	// What falls due follows from the rules and from which day it is.
	if (moves) await rebuildAll({ ...context, site: await loadSite(context.db) });
	return { version };
}
