import { commonPractice, type Verdict } from '../verdict.ts';

/** How a test that is made here may end. */
export const SESSION_ENDS = ['whole', 'noticed', 'stopped', 'lost'] as const;
export type SessionEnd = (typeof SESSION_ENDS)[number];

/** A test of a wearer that was made, the earliest first. */
export interface TestMade {
	model: string;
	size: string;
	passed: boolean;
}

/** What is done after a fit test. */
export type AfterFit = 'done' | 'put it on anew' | 'another mask' | 'loose-fitting';

/** How often a mask may fail on one face before another is taken: put on anew once. Common practice. */
const TRIES = 2;
/** How many masks may fail so on one face before something loose-fitting is thought of. Common practice. */
const MASKS = 2;

/** What is done after the last of some tests of a wearer: a failed one goes on to the mask put on anew, then to another, then to a loose-fitting kind. */
export function afterFit(made: readonly TestMade[]): Verdict<AfterFit> {
	const last = made.at(-1);
	const say = (outcome: AfterFit, text: string): Verdict<AfterFit> => ({
		outcome,
		reasons: [{ rule: `fit.after`, text, origin: commonPractice() }]
	});
	if (!last || last.passed) return say('done', 'Passed: nothing more to do.');
	const key = ({ model, size }: TestMade) => `${model}\n${size}`;
	// What was passed since starts the count anew.
	const since = made.slice(made.findLastIndex(({ passed }) => passed) + 1);
	const failed = (mask: string) => since.filter((one) => key(one) === mask).length;
	const given = new Set(since.map(key).filter((mask) => failed(mask) >= TRIES));
	if (failed(key(last)) < TRIES)
		return say('put it on anew', 'Failed once: take the mask off, put it on anew, test once more.');
	if (given.size < MASKS)
		return say(
			'another mask',
			`${last.model}, size ${last.size}, failed ${TRIES} times on this face: another size or model.`
		);
	return say(
		'loose-fitting',
		`${given.size} masks failed on this face, each put on anew: think of a hood or a helmet with a blower.`
	);
}
