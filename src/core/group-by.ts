/** Things by what they share, in their order. */
export function groupBy<T, K>(things: readonly T[], shared: (thing: T) => K): Map<K, T[]> {
	const groups = new Map<K, T[]>();
	for (const thing of things) {
		const key = shared(thing);
		const group = groups.get(key);
		if (group) group.push(thing);
		else groups.set(key, [thing]);
	}
	return groups;
}
