import { readable, type Day } from '../plan/calendar.ts';

/** One thing that falls due, as a message says it. */
export interface DigestDue {
	tag: string;
	/** What is to be done, in words. */
	what: string;
	/** By when, in words. */
	by: string;
	placeId: string;
	place: string;
}

/** What is known of a site on a day that a message may say. */
export interface DigestFacts {
	site: string;
	day: Day;
	overdue: readonly DigestDue[];
	/** Within the next days. */
	due: readonly DigestDue[];
	held: readonly { tag: string; why: string; placeId: string; place: string }[];
	/** Hazard plans that lapse or are in question, each as a sentence. */
	plans: readonly string[];
	/** What of the people lapses, each as a sentence. */
	people: readonly string[];
	/** What the plan in force has on this day, and whose it is. */
	planned: readonly { userId: string; line: string }[];
	/** That no backup was taken of late, as a sentence; empty where one was. */
	backups: readonly string[];
	/** What runs short or out of the stores, each as a sentence. */
	buy: readonly string[];
}

/** Whoever gets the message. */
export interface Reader {
	id: string;
	name: string;
	/** Works on all of the site's equipment; else only the places that they answer for. */
	wholeSite: boolean;
	/** Places that they answer for. */
	placeIds: readonly string[];
}

export interface Message {
	subject: string;
	text: string;
}

/** Lines of one kind that a message holds; the rest is counted. Site default. */
const MOST_LINES = 15;

function section(title: string, lines: readonly string[]): string[] {
	if (lines.length === 0) return [];
	const more = lines.length - MOST_LINES;
	return [
		`${title} (${lines.length})`,
		...lines.slice(0, MOST_LINES).map((line) => `- ${line}`),
		...(more > 0 ? [`and ${more} more`] : []),
		''
	];
}

const dueLine = ({ tag, what, by, place }: DigestDue) => `${tag}: ${what}, ${by}. ${place}`;

/**
 * The message of a day for one person: what is due to them, what is held, what lapses; null where there is nothing to
 * say, so that nobody learns to delete it unread.
 * @param address of the app; '' where it is not known
 */
export function digestFor(facts: DigestFacts, reader: Reader, address: string): Message | null {
	const theirs = <T extends { placeId: string }>(list: readonly T[]): T[] =>
		list.filter(({ placeId }) => reader.placeIds.includes(placeId));
	const others = <T extends { placeId: string }>(list: readonly T[]): T[] =>
		reader.wholeSite ? list.filter(({ placeId }) => !reader.placeIds.includes(placeId)) : [];
	const seen = <T extends { placeId: string }>(list: readonly T[]) =>
		theirs(list).length + others(list).length;
	const heldLine = ({ tag, why, place }: DigestFacts['held'][number]) => `${tag}: ${why}. ${place}`;
	const elsewhere = reader.placeIds.length ? ', elsewhere' : '';
	const own = facts.planned.filter(({ userId }) => userId === reader.id);
	const lines = [
		...section(
			'Your day by the plan',
			own.map(({ line }) => line)
		),
		...section('Overdue at places you answer for', theirs(facts.overdue).map(dueLine)),
		...section(`Overdue${elsewhere}`, others(facts.overdue).map(dueLine)),
		...section('Due this week at places you answer for', theirs(facts.due).map(dueLine)),
		...section(`Due this week${elsewhere}`, others(facts.due).map(dueLine)),
		...section('Held', [...theirs(facts.held), ...others(facts.held)].map(heldLine)),
		...(reader.wholeSite ? section('Hazard plans', facts.plans) : []),
		...(reader.wholeSite ? section('People', facts.people) : []),
		...(reader.wholeSite ? section('To buy', facts.buy) : []),
		...(reader.wholeSite ? section('Backups', facts.backups) : [])
	];
	if (lines.length === 0) return null;
	const counts = [
		[seen(facts.overdue), 'overdue'],
		[seen(facts.due), 'due this week'],
		[seen(facts.held), 'held']
	] as const;
	const said = counts.flatMap(([n, word]) => (n ? [`${n} ${word}`] : []));
	return {
		subject: `${facts.site}, ${readable(facts.day)}: ${said.join(', ') || 'what lapses'}`,
		text: [
			`${reader.name}, this is what stands on ${readable(facts.day)}.`,
			'',
			...lines,
			...(address ? [`Today: ${address}/`, ''] : []),
			'One message a day at most; switched off under Settings, Messages.'
		].join('\n')
	};
}

/** What is told at once. */
export interface UrgentFacts {
	site: string;
	/** What happened, as a sentence. */
	says: string;
	/** What it holds: tag and where it is. */
	items: readonly { tag: string; place: string }[];
	/** Page that says more, from the root of the app. */
	href: string;
}

/** The message that is sent at once: what happened and what is held by it. */
export function urgentMessage(facts: UrgentFacts, address: string): Message {
	const { site, says, items, href } = facts;
	return {
		subject: `${site}: ${says}`,
		text: [
			says,
			'',
			...section(
				'Held by it',
				items.map(({ tag, place }) => `${tag}. ${place}`)
			),
			...(address ? [`More: ${address}${href}`, ''] : []),
			'Switched off under Settings, Messages.'
		].join('\n')
	};
}

/** Minutes until a message that could not be delivered is tried again, by how often it was tried. Site default. */
const WAITS_MIN = [1, 5, 15, 60, 180, 360, 720];

/** When a message is tried again after it failed so many times; null: no more. */
export function triedAgainAt(tries: number, at: Date): Date | null {
	const wait = WAITS_MIN[tries - 1];
	return wait === undefined ? null : new Date(at.getTime() + wait * 60_000);
}
