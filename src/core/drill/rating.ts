/** Where everybody and every kind of fault begins. */
export const FIRST_RATING = 1500;
/** How much one answer moves a rating. Common practice. */
const STEP = 24;
/** The share of faults that should be found, so that a drill neither bores nor breaks. Site default. */
export const AIM = 0.8;

/**
 * The chance that somebody finds a fault. Published (from memory): Elo, The Rating of Chessplayers, 1978: logistic form,
 * 400 points for odds of ten to one.
 */
export const chanceToFind = (person: number, fault: number): number =>
	1 / (1 + 10 ** ((fault - person) / 400));

/** Both ratings after a fault was found or not: what one gains, the other loses. */
export function afterMeeting(
	person: number,
	fault: number,
	found: boolean
): { person: number; fault: number } {
	const gain = STEP * ((found ? 1 : 0) - chanceToFind(person, fault));
	return { person: person + gain, fault: fault - gain };
}

/** The rating of a fault that somebody finds four times of five. */
export const suits = (person: number): number => person - 400 * Math.log10(AIM / (1 - AIM));
