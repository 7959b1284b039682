/** Kinds of things that are found, the ones that are looked for most first. */
export const FOUND_KINDS = [
	'item',
	'action',
	'plan',
	'pair',
	'lot',
	'filter',
	'model',
	'place',
	'fault',
	'part',
	'test',
	'fill',
	'wearer',
	'person',
	'guide'
] as const;
export type FoundKind = (typeof FOUND_KINDS)[number];

/** Something that a word finds. */
export interface Found {
	kind: FoundKind;
	name: string;
	/** What else is said of it; searched too, and counts less. */
	detail: string;
	href: string;
}

const plain = (text: string) => text.trim().toLowerCase();

/** How well a text carries what is asked for; 0: not at all. */
function fits(text: string, asked: string): number {
	const at = plain(text);
	if (at === asked) return 4;
	if (at.startsWith(asked)) return 3;
	if (at.split(/[\s,.;()/-]+/).some((word) => word.startsWith(asked))) return 2;
	return at.includes(asked) ? 1 : 0;
}

/** How well something is what is asked for; 0: not at all. */
export function scoreOf({ name, detail }: Pick<Found, 'name' | 'detail'>, asked: string): number {
	const whole = plain(asked);
	if (!whole) return 0;
	const words = whole.split(/\s+/);
	const both = `${name} ${detail}`;
	if (!words.every((word) => fits(both, word) > 0)) return 0;
	return 10 * fits(name, whole) + words.reduce((sum, word) => sum + fits(name, word), 0) + 1;
}

/** What is found, the best first; of what is as good the kind that is looked for more, then by name. */
export function rank(found: readonly Found[], asked: string): Found[] {
	return found
		.map((one) => ({ one, score: scoreOf(one, asked) }))
		.filter(({ score }) => score > 0)
		.sort(
			(a, b) =>
				b.score - a.score ||
				FOUND_KINDS.indexOf(a.one.kind) - FOUND_KINDS.indexOf(b.one.kind) ||
				a.one.name.localeCompare(b.one.name)
		)
		.map(({ one }) => one);
}

/** A word that could stand on a label: it may be added where nothing carries it. */
export const looksLikeTag = (text: string): boolean => /^[a-z]{1,4}-?\d{2,8}$/i.test(text.trim());
