/** What a foot switch may do in an inspection. */
export const PEDALS = [
	{ does: 'good', words: 'Good, or take the reading' },
	{ does: 'next', words: 'Next step' },
	{ does: 'back', words: 'Step before' },
	{ does: 'aloud', words: 'Read the step aloud again' }
] as const;
export type PedalDoes = (typeof PEDALS)[number]['does'];

const KEY = 'pedals';
/** Keys that people type with are no pedals: they would answer while somebody writes a note. */
const TYPED =
	/^(?:Key[A-Z]|Digit\d|Numpad\w+|Space|Enter|Tab|Escape|Backspace|Delete|Arrow\w+|Shift\w+|Control\w+|Alt\w+|Meta\w+|Minus|Equal|Bracket\w+|Semicolon|Quote|Backquote|Comma|Period|Slash|Backslash|Intl\w+)$/;

export type Pedals = Partial<Record<PedalDoes, string>>;

/** Which key of the keyboard each pedal of this device is. */
export function pedals(): Pedals {
	try {
		const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? '{}');
		if (typeof kept !== 'object' || kept === null) return {};
		return Object.fromEntries(
			PEDALS.flatMap(({ does }) => {
				const code = (kept as Record<string, unknown>)[does];
				return typeof code === 'string' ? [[does, code]] : [];
			})
		);
	} catch {
		return {};
	}
}

/** @returns why this key is none, or nothing */
export const refusedPedal = (code: string): string | null =>
	code === '' || TYPED.test(code)
		? 'That key is one that people type with. Set the foot switch to another, such as F13 or Page down.'
		: null;

/** Keeps which key a pedal is; each key is one pedal. */
export function keepPedal(does: PedalDoes, code: string | null): Pedals {
	const kept = pedals();
	for (const { does: other } of PEDALS)
		if (other === does || kept[other] === code) delete kept[other];
	if (code !== null) kept[does] = code;
	try {
		localStorage.setItem(KEY, JSON.stringify(kept));
	} catch {
		// A device that keeps nothing has its pedals until the page is left.
	}
	return kept;
}

/** What a pressed key does as a pedal of this device; undefined: it is none. */
export const pedalOf = (code: string, kept: Pedals): PedalDoes | undefined =>
	PEDALS.find(({ does }) => kept[does] === code)?.does;
