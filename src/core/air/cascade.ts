import { READY_SHARE } from '../bench/breathing-apparatus.ts';
import { InputError } from '../verdict.ts';
import {
	absoluteBar,
	ATMOSPHERE_BAR,
	densityAt,
	FREE_AIR_C,
	isothermOf,
	pressureAt
} from './air-state.ts';
import { checkVolume } from './content.ts';

export interface Vessel {
	waterVolumeL: number;
	/** Gauge. */
	pressureBar: number;
}

/** Which bank a cylinder is filled from: all from the lowest up, or only the fullest. */
export type Strategy = 'cascade' | 'single bank';

export interface CascadeInput {
	banks: readonly Vessel[];
	/** Each cylinder comes like this. */
	cylinder: Vessel;
	fills?: number | undefined;
	temperatureC?: number | undefined;
	strategy?: Strategy;
	/** The valve is closed here; without it bank and cylinder come level. */
	targetBar?: number | undefined;
}

export interface CascadeFill {
	finalBar: number;
	/** Banks after it, in the order they were given. */
	banksBar: number[];
}

const MOST_FILLS = 10_000;

/**
 * Fills cylinders one after the other: each comes level with one bank after the other, by moles at constant
 * temperature with the real gas. Heat of filling is let go.
 * @throws InputError at banks[i], cylinder, fills, temperatureC or targetBar
 */
export function cascadeFill(input: CascadeInput): CascadeFill[] {
	const { banks, cylinder, fills = 1, temperatureC = FREE_AIR_C, strategy = 'cascade' } = input;
	if (banks.length === 0) throw new InputError('banks', 'One bank at least.');
	if (!Number.isInteger(fills) || fills < 1 || fills > MOST_FILLS)
		throw new InputError('fills', `A whole number of fills from 1 to ${MOST_FILLS}.`);
	const air = isothermOf(temperatureC);
	const densityOf = ({ waterVolumeL, pressureBar }: Vessel, path: string) => {
		checkVolume(waterVolumeL, `${path}.waterVolumeL`);
		return densityAt(air, absoluteBar(pressureBar, undefined, `${path}.pressureBar`));
	};
	const held = banks.map((bank, i) => ({
		volume: bank.waterVolumeL,
		density: densityOf(bank, `banks[${i}]`)
	}));
	const empty = densityOf(cylinder, 'cylinder');
	const full =
		input.targetBar === undefined
			? Infinity
			: densityAt(air, absoluteBar(input.targetBar, undefined, 'targetBar'));
	const barOf = (density: number) => pressureAt(air, density) - ATMOSPHERE_BAR;
	return Array.from({ length: fills }, () => {
		let density = empty;
		const byPressure = held.map((_, i) => i).sort((a, b) => level(a) - level(b) || a - b);
		for (const i of strategy === 'cascade' ? byPressure : byPressure.slice(-1)) {
			const bank = held[i];
			if (!bank || bank.density <= density || density >= full) continue;
			const even =
				(bank.volume * bank.density + cylinder.waterVolumeL * density) /
				(bank.volume + cylinder.waterVolumeL);
			const reached = Math.min(even, full);
			bank.density -= (cylinder.waterVolumeL * (reached - density)) / bank.volume;
			density = reached;
		}
		return { finalBar: barOf(density), banksBar: held.map((bank) => barOf(bank.density)) };
	});
	function level(i: number): number {
		return held[i]?.density ?? 0;
	}
}

export interface BankPlan {
	/** Cylinders that come to the share of their rated pressure before a bank has to be pumped up. */
	fills: number;
	/** The bank to pump up then, by its place in the list: the one whose pumping gives the most cylinders more. */
	repump: number | null;
	steps: CascadeFill[];
}

/**
 * How many cylinders come to 90 % of their rated pressure, and which bank to pump up next.
 * @throws InputError as cascadeFill, and at ratedBar
 */
export function bankPlan(
	input: Omit<CascadeInput, 'fills'> & { ratedBar: number; fullBar: number },
	most = 200
): BankPlan {
	const { ratedBar, fullBar, ...cascade } = input;
	if (!(ratedBar > 0)) throw new InputError('ratedBar', 'A rated pressure above 0 bar.');
	const good = (steps: CascadeFill[]) => {
		const failing = steps.findIndex((s) => s.finalBar < ratedBar * READY_SHARE);
		return failing < 0 ? steps.length : failing;
	};
	const all = cascadeFill({ ...cascade, fills: most });
	const fills = good(all);
	const after = all[fills - 1]?.banksBar ?? cascade.banks.map((bank) => bank.pressureBar);
	const gains = cascade.banks.map((bank, i) =>
		good(
			cascadeFill({
				...cascade,
				fills: most,
				banks: cascade.banks.map((b, k) => ({
					waterVolumeL: b.waterVolumeL,
					pressureBar: k === i ? Math.max(fullBar, after[k] ?? 0) : (after[k] ?? bank.pressureBar)
				}))
			})
		)
	);
	const best = Math.max(...gains);
	return {
		fills,
		repump: fills === most || best === 0 ? null : gains.indexOf(best),
		steps: all.slice(0, fills)
	};
}
