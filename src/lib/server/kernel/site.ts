import { type AccessLimits, SITE_ACCESS } from '../../../core/access/session.ts';
import type { RuleSet } from '../../../core/data/substance.ts';
import {
	type CodeScheme,
	DAY_BENCH_MINUTES,
	type Holiday,
	type SealSchool,
	type SetSchool,
	type ShownPressure,
	type ShownTemperature
} from '../../../core/site/choices.ts';
import type { Connection } from '../db/client.ts';
import { asc, isNull } from 'drizzle-orm';
import type { Every, IntervalRule } from '../../../core/plan/rules.ts';
import { site as ofSite } from '../../../core/verdict.ts';
import { dueRule, site } from '../db/schema/index.ts';
import type { Role } from './permissions.ts';

export interface Site extends AccessLimits {
	name: string;
	ruleSet: RuleSet;
	timeZone: string;
	/** Who wrote a plan does not approve it, who repaired does not release. */
	twoPeople: boolean;
	/** Roles that come in with a code of their authenticator too. */
	twoStepRoles: Role[];
	/** Which scheme of filter codes is read first. */
	codeScheme: CodeScheme;
	pressureUnit: ShownPressure;
	temperatureUnit: ShownTemperature;
	/** Whether a seal check is asked both ways where the model allows both. */
	sealWays: SealSchool;
	/** How leak and warning of a set are looked at. */
	setSchool: SetSchool;
	/** Weekdays that the bench works on, Monday 1 to Sunday 7. */
	workDays: number[];
	/** Minutes of bench work that such a day has. */
	benchMinutes: number;
	holidays: Holiday[];
	/** Hour of the day from which the message of the day goes out. */
	digestHour: number;
	/** When its first set-up was ended; null: it goes on. */
	setUpAt: Date | null;
	/** Grows with each change of its choices. */
	version: number;
	/** Rules of intervals that it made itself. */
	rules: readonly IntervalRule[];
}

/** What a site has chosen before it chose anything: the stricter defaults. */
export const UNNAMED: Site = {
	name: 'This site',
	ruleSet: 'uk',
	timeZone: 'Europe/London',
	twoPeople: true,
	...SITE_ACCESS,
	twoStepRoles: ['admin'],
	codeScheme: 'en',
	pressureUnit: 'bar',
	temperatureUnit: '°C',
	sealWays: 'both',
	setSchool: 'either',
	workDays: [1, 2, 3, 4, 5],
	benchMinutes: DAY_BENCH_MINUTES,
	holidays: [],
	digestHour: 6,
	setUpAt: null,
	version: 1,
	rules: []
};

/** The site's choices; the stricter defaults until it has made them. */
export async function loadSite(db: Connection): Promise<Site> {
	const rows = await db
		.select()
		.from(site)
		.leftJoin(dueRule, isNull(dueRule.endedOn))
		.orderBy(asc(dueRule.id));
	return {
		...UNNAMED,
		...rows[0]?.site,
		rules: rows.flatMap(({ due_rule: rule }) => (rule ? [asRule(rule)] : []))
	};
}

type RuleRow = typeof dueRule.$inferSelect;

/** How often a kept rule asks. */
function everyOf(row: RuleRow): Every {
	if (row.everyMonths !== null) return { months: row.everyMonths };
	if (row.everyUses !== null) return { uses: row.everyUses };
	if (row.everyHours !== null) return { hours: row.everyHours };
	if (row.everyCycles !== null) return { cycles: row.everyCycles };
	return row.afterEvent === null ? { days: row.everyDays ?? 1 } : { after: row.afterEvent };
}

/** How often a rule asks, as it is kept. */
export const everyColumns = (every: Every) => ({
	everyMonths: 'months' in every ? every.months : null,
	everyDays: 'days' in every ? every.days : null,
	everyUses: 'uses' in every ? every.uses : null,
	everyHours: 'hours' in every ? every.hours : null,
	everyCycles: 'cycles' in every ? every.cycles : null,
	afterEvent: 'after' in every ? every.after : null
});

/** A rule of the site as it is judged. */
export const asRule = (row: RuleRow): IntervalRule => ({
	key: row.id,
	what: row.what,
	detail: row.detail,
	every: everyOf(row),
	window: row.window,
	families: row.families,
	modelId: row.modelId,
	usePattern: row.usePattern,
	placeId: row.placeId,
	replaces: row.replaces,
	origin: ofSite(row.reason || 'rule of the site')
});

export { dayAt } from '../../../core/plan/moments.ts';
