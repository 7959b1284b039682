// The simulated gas monitor as a process of its own: prints a CSV log.
//   npm run -s gas-monitor -- --scenario tank --seed 7 --minutes 240 > log.csv
import { parseArgs } from 'node:util';
import { monitorLog, type Scenario } from './simulate.ts';

const { values } = parseArgs({
	options: {
		scenario: { type: 'string', default: 'tank' },
		seed: { type: 'string', default: '7' },
		minutes: { type: 'string', default: '240' },
		every: { type: 'string', default: '30' },
		start: { type: 'string', default: '2026-01-01T08:00:00Z' }
	}
});
if (!['tank', 'dryer', 'shed'].includes(values.scenario)) {
	process.stderr.write('There are the scenarios tank, dryer and shed.\n');
	process.exit(2);
}
process.stdout.write(
	monitorLog({
		scenario: values.scenario as Scenario,
		seed: Number(values.seed),
		minutes: Number(values.minutes),
		everySeconds: Number(values.every),
		start: new Date(values.start)
	})
);
