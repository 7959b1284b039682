/** What was asked last by a name: under way, or answered a moment ago. */
const asked = new Map<string, { at: number; answer: Promise<unknown> }>();

/**
 * Asks a source for all its listeners at once: whoever asks while an answer is under way, or younger than the time
 * given, gets that one.
 */
export function sharedPoll<T>(
	name: string,
	youngerThanMs: number,
	ask: () => Promise<T>
): Promise<T> {
	const kept = asked.get(name);
	if (kept && Date.now() - kept.at < youngerThanMs) return kept.answer as Promise<T>;
	const entry = { at: Infinity, answer: ask() };
	asked.set(name, entry);
	entry.answer.then(
		() => (entry.at = Date.now()),
		// What failed is asked anew by the next.
		() => asked.get(name) === entry && asked.delete(name)
	);
	return entry.answer;
}
