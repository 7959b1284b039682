import { sql } from 'drizzle-orm';
import type { SiteSoFar } from '../../../../core/site/missing.ts';
import type { Connection } from '../client.ts';

/** What a site has so far; each part is looked for until one is found. */
export async function siteSoFar(db: Connection): Promise<Omit<SiteSoFar, 'named' | 'twoPeople'>> {
	const { rows } = await db.execute<Omit<SiteSoFar, 'named' | 'twoPeople'>>(sql`
		select
			(select count(*) from (select 1 from "user" where disabled_at is null limit 2) x) > 1 as others,
			exists (select 1 from place where closed_on is null) as place,
			exists (select 1 from item_model) as model,
			exists (select 1 from item where retired_on is null) as item,
			exists (select 1 from item_state where last_inspection_on is not null) as inspected,
			exists (select 1 from item_model m where m.mount <> 'none' and m.filter_count > 0
				and exists (select 1 from item i where i.model_id = m.id and i.retired_on is null)) as "takesFilters",
			exists (select 1 from filter_lot) as "filterLot",
			exists (select 1 from part_lot) as part,
			exists (select 1 from wearer) as wearer,
			exists (select 1 from place_floor where floor > 0) as floor,
			exists (select 1 from hazard_plan) as plan,
			exists (select 1 from hazard_edition) as "planInForce"`);
	const [row] = rows;
	if (!row) throw new RangeError('What the site has was not given.');
	return row;
}
