import { type Where, WHERE_WORDS } from './custody.ts';

/** What the record says of where an item is, as far as a scan can contradict it. */
export interface Held {
	where: Where;
	/** Id and number of who has it; null: nobody. */
	wearer: { id: string; number: string } | null;
	/** When that began, ms. */
	since: number;
	/** Pressure that it went out with; null: not known or none. */
	startBar: number | null;
}

/** What was said on bringing something back. */
export interface BroughtBack {
	/** Who brings it; null: not said, so whoever had it. */
	by: { id: string; number: string } | null;
	minutes: number | null;
	bar: number | null;
	/** When it was scanned, ms. */
	at: number;
}

export const QUESTIONS = [
	'never issued',
	'back already',
	'by another',
	'longer than out',
	'more than it had',
	'with another',
	'not on its shelf'
] as const;
export type Question = (typeof QUESTIONS)[number];

/** One thing in which a scan and the record differ. It is asked about once; the answer is kept as the reason. */
export interface Contradiction {
	question: Question;
	text: string;
}

/** Minutes that a clock, a walk to the counter and rounding may differ by. Site default. */
const SLACK_MIN = 2;
/** What two gauges may differ by, bar. Common practice. */
const SLACK_BAR = 10;

const minutesOut = (held: Held, at: number): number => Math.max(0, (at - held.since) / 60_000);

/** In what a return differs from the record; empty: in nothing. */
export function askOfReturn(held: Held, back: BroughtBack): Contradiction[] {
	const asked: Contradiction[] = [];
	const ask = (question: Question, text: string) => asked.push({ question, text });
	if (held.where === 'shelf')
		ask('never issued', 'It was never handed out on record: it lies on its shelf.');
	else if (held.where !== 'issued')
		ask('back already', `It is back already: ${WHERE_WORDS[held.where]}.`);
	if (held.wearer && back.by && held.wearer.id !== back.by.id)
		ask(
			'by another',
			`It went out to ${held.wearer.number} and is brought back by ${back.by.number}.`
		);
	const out = minutesOut(held, back.at);
	if (held.where === 'issued' && back.minutes !== null && back.minutes > out + SLACK_MIN)
		ask(
			'longer than out',
			`Worn ${back.minutes} min, but it was out for ${Math.floor(out)} min only.`
		);
	if (held.startBar !== null && back.bar !== null && back.bar > held.startBar + SLACK_BAR)
		ask('more than it had', `${back.bar} bar are more than the ${held.startBar} bar it went with.`);
	return asked;
}

/** In what handing something out differs from the record. Its own holder may scan it again: then nothing happens. */
export function askOfHandOut(held: Held, to: { id: string; number: string }): Contradiction[] {
	if (held.where === 'issued' && held.wearer && held.wearer.id !== to.id)
		return [
			{
				question: 'with another',
				text: `It is out with ${held.wearer.number} on record and was never scanned back.`
			}
		];
	return [];
}

/** Answers that are offered by one key each; anything else is written. Common practice. */
export const ANSWERS: Readonly<Record<Question, readonly string[]>> = {
	'never issued': ['went out without a scan', 'own item, worn without the counter'],
	'back already': ['scanned twice', 'went out again without a scan'],
	'by another': ['colleague brings it', 'handed on within the team'],
	'longer than out': ['went out before it was scanned', 'minutes read wrongly, kept as said'],
	'more than it had': ['gauge read again: so it is', 'cylinder was changed outside'],
	'with another': ['handed on within the team', 'brought back without a scan'],
	'not on its shelf': ['found here', 'put down at the wrong place']
};
