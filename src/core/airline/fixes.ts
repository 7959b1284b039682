import { judgeHose, LONGEST_HOSE_M, MOST_SUPPLY_BAR, type HoseInput } from './hose.ts';

/** Bores that hose is sold in, mm. Common practice. */
export const BORES_MM = [6, 8, 10, 13, 16, 19, 25] as const;
const HALVINGS = 40;

/** One change that makes a failing hose pass, all else equal. */
export type HoseFix =
	| { change: 'wider'; boreMm: number }
	| { change: 'shorter'; lengthM: number }
	| { change: 'more pressure'; supplyBar: number }
	| { change: 'fewer wearers'; wearers: number };

const passes = (input: HoseInput): boolean => judgeHose(input).outcome === 'pass';

/**
 * The single changes that make a hose pass: the next bore that is wide enough, the longest length, the least supply,
 * the most wearers. Empty where one change alone is not enough, or where it passes already.
 * @throws InputError as judgeHose
 */
export function hoseFixes(input: HoseInput): HoseFix[] {
	const { wearers = 1 } = input;
	if (passes(input)) return [];
	const fixes: HoseFix[] = [];
	const boreMm = BORES_MM.find((bore) => bore > input.boreMm && passes({ ...input, boreMm: bore }));
	if (boreMm) fixes.push({ change: 'wider', boreMm });
	const shorter = (lengthM: number) => passes({ ...input, lengthM });
	if (shorter(0)) {
		const lengthM = edge(0, Math.min(input.lengthM, LONGEST_HOSE_M), shorter);
		if (lengthM >= 1) fixes.push({ change: 'shorter', lengthM: Math.floor(lengthM) });
	}
	const pressed = (supplyBar: number) => passes({ ...input, supplyBar });
	if (input.supplyBar < MOST_SUPPLY_BAR && pressed(MOST_SUPPLY_BAR)) {
		const least = edge(MOST_SUPPLY_BAR, input.supplyBar, pressed);
		fixes.push({
			change: 'more pressure',
			supplyBar: Math.min(MOST_SUPPLY_BAR, Math.ceil(least * 10) / 10)
		});
	}
	for (let fewer = wearers - 1; fewer > 0; fewer--)
		if (passes({ ...input, wearers: fewer, flowLPerMin: (input.flowLPerMin * fewer) / wearers })) {
			fixes.push({ change: 'fewer wearers', wearers: fewer });
			break;
		}
	return fixes;
}

/** Where what holds at one value stops holding on the way to another. */
function edge(holding: number, failing: number, holds: (value: number) => boolean): number {
	if (holds(failing)) return failing;
	let [good, bad] = [holding, failing];
	for (let i = 0; i < HALVINGS; i++) {
		const middle = (good + bad) / 2;
		if (holds(middle)) good = middle;
		else bad = middle;
	}
	return good;
}
