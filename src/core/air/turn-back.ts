import { InputError } from '../verdict.ts';
import { absoluteBar } from './air-state.ts';
import { WARNING_BAR } from './content.ts';

export interface TurnBack {
	/** The team turns when the first of it is down to its own; this is that of who entered with least. */
	turnAtBar: number;
	/** Of each wearer, in the order given. */
	eachBar: number[];
}

/**
 * Pressure at which a team turns when the way out is as long as the way in: half of what lies above the warning and a
 * margin is used going in. By pressure, not by litres: at high pressure a bar holds less air, so that a little more
 * than half of the litres is left for the way out.
 * @throws InputError at startBar[i] with nothing above warning and margin, at warningBar, at marginBar
 */
export function turnBack(
	startBar: readonly number[],
	warningBar = WARNING_BAR,
	marginBar = 0
): TurnBack {
	if (startBar.length === 0) throw new InputError('startBar', 'One wearer at least.');
	absoluteBar(warningBar, undefined, 'warningBar');
	absoluteBar(marginBar, undefined, 'marginBar');
	const eachBar = startBar.map((start, i) => {
		absoluteBar(start, undefined, `startBar[${i}]`);
		const usable = start - warningBar - marginBar;
		if (usable <= 0)
			throw new InputError(
				`startBar[${i}]`,
				`${start} bar leaves nothing above the warning at ${warningBar} bar and a margin of ${marginBar} bar.`
			);
		return start - usable / 2;
	});
	return { turnAtBar: Math.min(...eachBar), eachBar };
}
