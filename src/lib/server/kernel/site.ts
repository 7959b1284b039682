import { type AccessLimits, SITE_ACCESS } from '../../../core/access/session.ts';
import type { RuleSet } from '../../../core/data/substance.ts';
import type { Connection } from '../db/client.ts';
import { site } from '../db/schema/index.ts';
import type { Role } from './permissions.ts';

export interface Site extends AccessLimits {
	name: string;
	ruleSet: RuleSet;
	timeZone: string;
	/** Who wrote a plan does not approve it, who repaired does not release. */
	twoPeople: boolean;
	/** Roles that come in with a code of their authenticator too. */
	twoStepRoles: Role[];
}

const UNNAMED: Site = {
	name: 'This site',
	ruleSet: 'uk',
	timeZone: 'Europe/London',
	twoPeople: true,
	...SITE_ACCESS,
	twoStepRoles: ['admin']
};

/** The site's choices; the stricter defaults until it has made them. */
export async function loadSite(db: Connection): Promise<Site> {
	const [row] = await db.select().from(site);
	return row ?? UNNAMED;
}

export { dayAt } from '../../../core/plan/moments.ts';
