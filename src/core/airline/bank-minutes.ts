import {
	absoluteBar,
	densityAt,
	FREE_AIR_C,
	FREE_AIR_MOL_PER_L,
	isothermOf
} from '../air/air-state.ts';
import type { Vessel } from '../air/cascade.ts';
import { checkVolume } from '../air/content.ts';
import { InputError } from '../verdict.ts';

export interface BankUse {
	banks: readonly Vessel[];
	/** The regulator gives no more below this, gauge bar. */
	leastBar: number;
	wearers: number;
	/** Each of them. */
	lPerMin: number;
	/** Kept back for the way out. */
	escapeMin: number;
	temperatureC?: number | undefined;
}

export interface BankMinutes {
	litres: number;
	/** What is kept back for the way out. */
	escapeLitres: number;
	/** Until the way out begins; 0 where it does not even last for that. */
	workMinutes: number;
	/** Until the regulator gives no more. */
	totalMinutes: number;
}

/**
 * How long a bank lasts for some wearers with the way out kept back. Each bank counts down to what the regulator
 * needs, one after the other.
 * @throws InputError at banks[i], leastBar, wearers, lPerMin or escapeMin
 */
export function bankMinutes(use: BankUse): BankMinutes {
	const { banks, leastBar, wearers, lPerMin, escapeMin, temperatureC = FREE_AIR_C } = use;
	if (banks.length === 0) throw new InputError('banks', 'One bank at least.');
	if (!Number.isInteger(wearers) || wearers < 1 || wearers > 50)
		throw new InputError('wearers', 'A whole number of wearers from 1 to 50.');
	if (!(lPerMin > 0 && lPerMin <= 1000))
		throw new InputError('lPerMin', 'A flow above 0, up to 1000 L/min each.');
	if (!(escapeMin >= 0 && escapeMin <= 240))
		throw new InputError('escapeMin', 'From 0 to 240 minutes for the way out.');
	const air = isothermOf(temperatureC);
	const least = densityAt(air, absoluteBar(leastBar, undefined, 'leastBar'));
	const litres = banks.reduce((sum, { waterVolumeL, pressureBar }, i) => {
		checkVolume(waterVolumeL, `banks[${i}].waterVolumeL`);
		const density = densityAt(air, absoluteBar(pressureBar, undefined, `banks[${i}].pressureBar`));
		return sum + (waterVolumeL * Math.max(0, density - least)) / FREE_AIR_MOL_PER_L;
	}, 0);
	const perMin = wearers * lPerMin;
	const escapeLitres = perMin * escapeMin;
	return {
		litres,
		escapeLitres,
		workMinutes: Math.max(0, (litres - escapeLitres) / perMin),
		totalMinutes: litres / perMin
	};
}
