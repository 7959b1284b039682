import type { Step } from '../inspection/procedure.ts';

/** What there is to hear at a step: a whistle, an alarm, a hiss while a pressure is held; null: nothing. */
export function heardAt(
	step: Pick<Step, 'station' | 'reading'>
): 'whistle' | 'alarm' | 'hiss' | null {
	if (step.reading?.kind === 'whistle') return 'whistle';
	if (step.reading?.kind === 'hold') return 'hiss';
	return step.station === 'distress' ? 'alarm' : null;
}

/** Between these a set may whistle, bar: what is heard at another pressure is another's. Common practice: far beyond every maker's band. */
export const OWN_WHISTLE_BAR = { least: 25, most: 90 } as const;

/** Whether a whistle that is heard at a pressure can be that of the set. */
export const couldBeOwn = (bar: number): boolean =>
	bar >= OWN_WHISTLE_BAR.least && bar <= OWN_WHISTLE_BAR.most;
