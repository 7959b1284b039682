import { AIR_MOLAR_MASS_G_PER_MOL } from '../data/air-equation.ts';
import { InputError, published, type Verdict } from '../verdict.ts';
import { airState } from './air-state.ts';
import { checkVolume } from './content.ts';

/** Most that a set may weigh ready to wear, kg. Published: EN 137; from memory. */
export const MOST_SET_KG = 18;
/** Sums of decimal weights carry rounding in the last bits; it must not decide. */
const ROUNDING = 1e-9;

export interface WeighedCylinder {
	emptyKg: number;
	waterVolumeL: number;
	pressureBar: number;
}

/** Mass of the air in a cylinder, kg. */
export const airKg = (waterVolumeL: number, pressureBar: number, temperatureC?: number): number =>
	(airState({ pressureBar, temperatureC }).densityMolPerL *
		waterVolumeL *
		AIR_MOLAR_MASS_G_PER_MOL) /
	1000;

/**
 * Weight of a set with its cylinders full, against the limit.
 * @throws InputError at partsKg[i] or cylinders[i]
 */
export function setWeight(
	partsKg: readonly number[],
	cylinders: readonly WeighedCylinder[]
): Verdict<'pass' | 'fail'> & { totalKg: number } {
	partsKg.forEach((kg, i) => checkKg(kg, `partsKg[${i}]`));
	let air = 0;
	cylinders.forEach((cylinder, i) => {
		checkKg(cylinder.emptyKg, `cylinders[${i}].emptyKg`);
		checkVolume(cylinder.waterVolumeL, `cylinders[${i}].waterVolumeL`);
		air += airKg(cylinder.waterVolumeL, cylinder.pressureBar);
	});
	const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);
	const totalKg = sum(partsKg) + sum(cylinders.map((c) => c.emptyKg)) + air;
	const outcome = totalKg > MOST_SET_KG + ROUNDING ? 'fail' : 'pass';
	return {
		totalKg,
		outcome,
		reasons: [
			{
				rule: 'set.weight',
				text: `${totalKg.toFixed(2)} kg with ${air.toFixed(2)} kg of air in it; ${MOST_SET_KG} kg at most.`,
				origin: published('EN 137'),
				limit: MOST_SET_KG,
				value: totalKg,
				unit: 'kg',
				margin: MOST_SET_KG - totalKg
			}
		]
	};
}

function checkKg(kg: number, path: string): void {
	if (!(kg >= 0 && kg < 100)) throw new InputError(path, 'A weight from 0 to 100 kg.');
}
