import { SvelteMap } from 'svelte/reactivity';

/** A key, or several, and what they do. */
export interface KeyHelp {
	keys: string;
	does: string;
}

/** Keys that work on the page as it stands, by what told them. */
const told = new SvelteMap<symbol, readonly KeyHelp[]>();

/** Says which keys a component hears, for as long as it is there. Called while it is made. */
export function hearsKeys(keys: () => readonly KeyHelp[]): void {
	const id = Symbol('keys');
	$effect(() => {
		told.set(id, keys());
		return () => void told.delete(id);
	});
}

/** Every key of the page as it stands. */
export const pageKeys = (): KeyHelp[] => [...told.values()].flat();

/** Keys that work everywhere. */
export const COMMON_KEYS: readonly KeyHelp[] = [
	{ keys: '/', does: 'scan a tag or search, from anywhere' },
	{ keys: '?', does: 'these keys' },
	{ keys: 'Tab', does: 'to the next field or button; Shift and Tab back' },
	{ keys: 'Esc', does: 'shut what stands open' }
];
