import { checkGaugeBar, type TestOutcome } from '../bench/breathing-apparatus.ts';
import { maker, published, type Verdict } from '../verdict.ts';
import { MOST_SUPPLY_BAR } from './hose.ts';

/**
 * The pressure at the inlet of a rig with all wearers breathing, against the band of its approval.
 * @param leastBar of the approval; null: not on record, so that only the most that any rig may have is judged
 * @throws InputError at bar on a reading that cannot be
 */
export function inletTest(bar: number, leastBar: number | null): Verdict<TestOutcome> {
	checkGaugeBar(bar, 'bar');
	const low = leastBar !== null ? bar < leastBar : bar <= 0;
	const high = bar > MOST_SUPPLY_BAR;
	const limit = high || leastBar === null ? MOST_SUPPLY_BAR : leastBar;
	return {
		outcome: low || high ? 'fail' : 'pass',
		reasons: [
			{
				rule: high ? 'inlet.high' : low ? 'inlet.low' : 'inlet.band',
				text: `${bar} bar at the inlet; ${leastBar === null ? 'the least of the approval is not on record' : `${leastBar} at least`}, ${MOST_SUPPLY_BAR} at most.`,
				origin:
					leastBar === null || high
						? published('42 CFR 84 subpart J')
						: maker('band of the approval'),
				limit,
				value: bar,
				unit: 'bar',
				margin: high || leastBar === null ? MOST_SUPPLY_BAR - bar : bar - leastBar
			}
		]
	};
}
