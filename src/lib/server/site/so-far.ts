import type { ImportKind } from '../../../core/csv/kinds.ts';
import { type Missing, missingOf } from '../../../core/site/missing.ts';
import type { Connection } from '../db/client.ts';
import { siteSoFar } from '../db/queries/site.ts';
import { type Site, UNNAMED } from '../kernel/site.ts';

/** The screen of the first set-up that it goes on with: the first that is not done. */
export async function setUpStep(db: Connection, site: Pick<Site, 'name'>): Promise<string> {
	const has = await siteSoFar(db);
	if (site.name === UNNAMED.name) return '/set-up/site';
	if (!has.place) return '/set-up/places';
	return has.model ? '/set-up/register' : '/set-up/equipment';
}

/** Which tables a site has taken in so far. */
export async function tablesIn(db: Connection): Promise<Record<ImportKind, boolean>> {
	const { item, filterLot, part, wearer } = await siteSoFar(db);
	return { items: item, filters: filterLot, parts: part, wearers: wearer };
}

/** What a site still lacks before its work can begin, in order. */
export const missingHere = async (
	db: Connection,
	{ name, twoPeople }: Pick<Site, 'name' | 'twoPeople'>
): Promise<Missing[]> =>
	missingOf({ ...(await siteSoFar(db)), named: name !== UNNAMED.name, twoPeople });
