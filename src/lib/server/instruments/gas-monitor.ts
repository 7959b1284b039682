import { monitorLog, type Scenario } from '../../../../instruments/gas-monitor/simulate.ts';

const MINUTES = 240;
const EVERY_SECONDS = 30;

/** The log that the simulated monitor holds of this morning, as CSV. */
export function simulatedLog(scenario: Scenario, now: Date): string {
	const start = new Date(now);
	start.setUTCHours(7, 0, 0, 0);
	return monitorLog({
		scenario,
		seed: 7,
		start,
		minutes: MINUTES,
		everySeconds: EVERY_SECONDS
	});
}
