import type { RuleSet } from '../../core/data/substance.ts';
import type { Day } from '../../core/plan/calendar.ts';
import type { Connection } from './db/client.ts';
import { site } from './db/schema/index.ts';

export interface Site {
	name: string;
	ruleSet: RuleSet;
	timeZone: string;
}

const UNNAMED: Site = { name: 'This site', ruleSet: 'uk', timeZone: 'Europe/London' };

/** The site's choices; the stricter defaults until it has made them. */
export async function loadSite(db: Connection): Promise<Site> {
	const [row] = await db.select().from(site);
	return row ?? UNNAMED;
}

const dayFormats = new Map<string, Intl.DateTimeFormat>();

/** The day that the site's own calendar shows at a moment. */
export function dayAt(moment: Date, timeZone: string): Day {
	let format = dayFormats.get(timeZone);
	if (!format) {
		// Swedish writes dates as ISO 8601 does.
		format = new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short' });
		dayFormats.set(timeZone, format);
	}
	return format.format(moment);
}
