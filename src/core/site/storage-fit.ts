import { commonPractice, type Reason } from '../verdict.ts';
import type { PlaceKind, StorageTrait } from './places.ts';

/** What keeping something needs of a place, by family. Common practice; care of rubber, sorbent and pressure. */
const NEEDS: Readonly<Record<string, readonly StorageTrait[]>> = {
	'half-mask': ['dry', 'dark', 'cool', 'clean'],
	'full-face': ['dry', 'dark', 'cool', 'clean'],
	'canister-mask': ['dry', 'dark', 'cool', 'clean'],
	'powered-blower': ['dry', 'clean'],
	'ba-set': ['dry', 'clean'],
	airline: ['dry', 'clean'],
	'gas-tight-suit': ['dry', 'dark', 'cool', 'clean'],
	'ventilated-suit': ['dry', 'dark', 'clean'],
	'escape-set': ['dry', 'cool'],
	'opened-filter': ['dry', 'clean', 'shut'],
	cylinder: ['dry', 'cool']
};

/** How something lies or hangs while it is kept. Common practice. */
const CARRYING: Readonly<Record<string, string>> = {
	'half-mask': 'hanging or lying in shape, nothing else in its bag',
	'full-face':
		'hanging or lying in shape, harness forward over the lens and not stretched, nothing else in the carrier',
	'canister-mask': 'lying in shape, hose without a kink, canister plugged and dry',
	'powered-blower': 'battery on charge, hose without a kink',
	'ba-set': 'straps out, in its bracket or case',
	airline: 'hose coiled, couplings capped',
	'gas-tight-suit': 'hung or loosely folded, zip half open',
	'ventilated-suit': 'hung or loosely folded',
	'escape-set': 'seal whole, within reach',
	'opened-filter': 'bagged and dated',
	cylinder: 'valve shut, pressure above zero, cap on its thread'
};

const WHY: Readonly<Record<StorageTrait, string>> = {
	dry: 'damp',
	dark: 'light on it',
	cool: 'warmth',
	clean: 'dust and vapours of the work',
	shut: 'open to the room'
};

export const storageNeeds = (family: string): readonly StorageTrait[] =>
	NEEDS[family] ?? ['dry', 'clean'];
export const carryingOf = (family: string): string => CARRYING[family] ?? 'in shape, nothing on it';

/**
 * Why a place does not suit what is to be kept there; empty: it suits, or nobody said yet what the place is like.
 * A vehicle suits nothing for long: it warms up.
 */
export function unsuited(
	family: string,
	place: { name: string; kind: PlaceKind; storage: readonly StorageTrait[] }
): Reason[] {
	const reasons: Reason[] = [];
	const say = (rule: string, text: string) =>
		reasons.push({ rule: `storage.${rule}`, text, origin: commonPractice('storage') });
	if (place.kind === 'vehicle' && storageNeeds(family).includes('cool'))
		say('vehicle', `${place.name} is a vehicle: it warms up. Not kept there overnight.`);
	// A place of which nothing was said is not refused for it.
	if (place.storage.length > 0)
		for (const trait of storageNeeds(family))
			if (!place.storage.includes(trait))
				say(trait, `${place.name} is not said to be ${trait}: ${WHY[trait]} spoils it.`);
	return reasons;
}
