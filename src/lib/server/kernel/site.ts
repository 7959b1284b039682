import type { RuleSet } from '../../../core/data/substance.ts';
import type { Connection } from '../db/client.ts';
import { site } from '../db/schema/index.ts';

export interface Site {
	name: string;
	ruleSet: RuleSet;
	timeZone: string;
	/** Who wrote a plan does not approve it, who repaired does not release. */
	twoPeople: boolean;
}

const UNNAMED: Site = {
	name: 'This site',
	ruleSet: 'uk',
	timeZone: 'Europe/London',
	twoPeople: true
};

/** The site's choices; the stricter defaults until it has made them. */
export async function loadSite(db: Connection): Promise<Site> {
	const [row] = await db.select().from(site);
	return row ?? UNNAMED;
}

export { dayAt } from '../../../core/plan/moments.ts';
