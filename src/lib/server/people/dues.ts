import { isNull } from 'drizzle-orm';
import { groupBy } from '../../../core/group-by.ts';
import { lapsesOf } from '../../../core/people/people-due.ts';
import { type Day, plusDays } from '../../../core/plan/calendar.ts';
import type { Connection } from '../db/client.ts';
import { testsForDues } from '../db/queries/fit.ts';
import { wearer, wearerChange } from '../db/schema/index.ts';
import { authorisationsLapsing, lapseWords } from './authorisations.ts';

/** Something about a person that falls due, as Today, the plan and the messages say it. */
export interface PeopleDue {
	key: string;
	what: 'fit test' | 'clearance' | 'training' | 'authorisation';
	/** The number of a wearer; empty for somebody who works at the bench. */
	number: string;
	name: string;
	on: Day;
	/** As a sentence, without the name. */
	says: string;
	href: string;
}

/** How long an authorisation that lapsed is still asked for, days. Site default. */
const LAPSED_DAYS = 90;

/** What of the people lapses until a day, or lapsed lately, the earliest first. */
export async function peopleDues(db: Connection, asOf: Day, until: Day): Promise<PeopleDue[]> {
	const [wearers, tests, changes, authorised] = await Promise.all([
		db.select().from(wearer).where(isNull(wearer.leftOn)),
		testsForDues(db),
		db.select().from(wearerChange),
		authorisationsLapsing(db, plusDays(asOf, -LAPSED_DAYS), until)
	]);
	const testsOf = groupBy(tests, ({ wearerId }) => wearerId);
	const changesOf = groupBy(changes, ({ wearerId }) => wearerId);
	const worn = wearers.flatMap((who) =>
		lapsesOf(
			{
				...who,
				tests: testsOf.get(who.id) ?? [],
				changes: (changesOf.get(who.id) ?? []).map(({ what, reportedOn, reportedAt }) => ({
					what,
					on: reportedOn,
					at: reportedAt.toISOString()
				}))
			},
			asOf,
			until
		).map(({ what, about, on, says }): PeopleDue => ({
			key: `${who.id}:${what}:${about}`,
			what,
			number: who.number,
			name: who.name,
			on,
			says,
			href: `/people/${who.id}`
		}))
	);
	const jobs = authorised.map((one): PeopleDue => ({
		key: one.id,
		what: 'authorisation',
		number: '',
		name: one.person,
		on: one.on,
		says: lapseWords(one, asOf),
		href: '/people/competence'
	}));
	return [...worn, ...jobs].sort(
		(a, b) => a.on.localeCompare(b.on) || a.name.localeCompare(b.name)
	);
}
