import { asGiven, type GivenAnswer, type RunSender } from '../run/session.svelte';

/**
 * Keeps what is answered in a drill to this page: nothing of it goes where real answers go.
 * @param ended called with every answer, in the order in which they were given, when the list is signed
 */
export function drillSender(
	answered: (answer: GivenAnswer) => void,
	ended: (answers: readonly GivenAnswer[]) => void
): RunSender {
	let waiting = $state.raw<GivenAnswer[]>([]);
	let signing = $state(false);
	return {
		get waiting() {
			return waiting;
		},
		get signing() {
			return signing;
		},
		answer(answer) {
			const given = asGiven({ ...answer });
			waiting = [...waiting, given];
			answered(given);
		},
		sign() {
			signing = true;
			ended(waiting);
		},
		// Timed by the page itself.
		hold: () => Promise.resolve(undefined),
		ownHold() {}
	};
}
