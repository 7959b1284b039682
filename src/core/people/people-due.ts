import { groupBy } from '../group-by.ts';
import { type Day, plusDays, readable } from '../plan/calendar.ts';
import {
	CHANGE_WORDS,
	type FitTest,
	fitUntil,
	judgeFitTest,
	type ReportedChange
} from './fit-standing.ts';

/** Something about a person that lapses or has lapsed. */
export interface PersonDue {
	what: 'fit test' | 'clearance' | 'training';
	/** Which mask, of a fit test. */
	about: string;
	/** Last day. */
	on: Day;
	/** As a sentence. */
	says: string;
}

/** What is known of a wearer that lapses. */
export interface WearerLapsing {
	clearedUntil: Day | null;
	trainedUntil: Day | null;
	/** The earliest first. */
	tests: readonly FitTest[];
	changes: readonly ReportedChange[];
}

/** How long after its last day something that lapsed is still asked for: what nobody renewed for longer is not worn any more. Site default. */
export const ASKED_FOR_DAYS = 90;

/** What of a wearer lapses until a day, or lapsed lately, the earliest first. */
export function lapsesOf(wearer: WearerLapsing, asOf: Day, until: Day): PersonDue[] {
	const since = plusDays(asOf, -ASKED_FOR_DAYS);
	const within = (on: Day) => on >= since && on <= until;
	const masks = groupBy(wearer.tests, ({ model, size }) => `${model}, size ${size}`);
	const fits = [...masks].flatMap(([about, tests]): PersonDue[] => {
		const last = tests.findLast(({ passed }) => passed);
		if (!last) return [];
		const later = tests.slice(tests.indexOf(last) + 1);
		const verdict = judgeFitTest(last, wearer.changes, asOf, later);
		const changed = wearer.changes.find(({ on }) => on >= last.on && on <= asOf);
		if (verdict.reasons.some(({ rule }) => rule === 'fit.changed') && changed)
			return within(changed.on)
				? [
						{
							what: 'fit test',
							about,
							on: changed.on,
							says: `Fit test with ${about}, ended on ${readable(changed.on)}: ${CHANGE_WORDS[changed.what]}`
						}
					]
				: [];
		if (verdict.reasons.some(({ rule }) => rule === 'fit.failed-since')) return [];
		const on = fitUntil(last.on);
		return within(on)
			? [
					{
						what: 'fit test',
						about,
						on,
						says: `Fit test with ${about}, ${on < asOf ? 'lapsed on' : 'last day'} ${readable(on)}`
					}
				]
			: [];
	});
	const day = (what: 'clearance' | 'training', on: Day | null): PersonDue[] =>
		on && within(on)
			? [
					{
						what,
						about: '',
						on,
						says: `${what === 'clearance' ? 'Clearance' : 'Training'}, ${on < asOf ? 'lapsed on' : 'last day'} ${readable(on)}`
					}
				]
			: [];
	return [
		...fits,
		...day('clearance', wearer.clearedUntil),
		...day('training', wearer.trainedUntil)
	].sort((a, b) => a.on.localeCompare(b.on));
}
