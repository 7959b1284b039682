import { type Missing, missingOf } from '../../../core/site/missing.ts';
import type { Connection } from '../db/client.ts';
import { siteSoFar } from '../db/queries/site.ts';
import { type Site, UNNAMED } from '../kernel/site.ts';

/** What a site still lacks before its work can begin, in order. */
export const missingHere = async (
	db: Connection,
	{ name, twoPeople }: Pick<Site, 'name' | 'twoPeople'>
): Promise<Missing[]> =>
	missingOf({ ...(await siteSoFar(db)), named: name !== UNNAMED.name, twoPeople });
