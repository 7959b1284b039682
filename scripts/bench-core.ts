// Prints how long the computations of the core take. Needs no database.
import { confusion } from '../instruments/pressure-bench/confusion.ts';
import { densityAt, isotherm } from '../src/core/air/air-state.ts';
import { cascadeFill } from '../src/core/air/cascade.ts';
import { findSubstance } from '../src/core/data/substances.ts';
import { adsorbateOf, serviceLife } from '../src/core/filters/service-life.ts';
import { walkSweep } from '../src/core/filters/sweep.ts';
import { DEFAULT_BED } from '../src/core/filters/wheeler-jonas.ts';
import { whatWouldChange } from '../src/core/hazards/changes.ts';
import { DEFAULT_FACTS } from '../src/core/hazards/facts.ts';
import { decide } from '../src/core/hazards/ladder.ts';

const toluene = findSubstance('toluene');
if (!toluene) throw new Error('The library lacks toluene.');
const input = {
	adsorbate: adsorbateOf(toluene, 20),
	flowLPerMin: 40,
	filters: 2,
	temperatureC: 20,
	relativeHumidityPercent: 50,
	breakthroughFraction: 0.1,
	bed: DEFAULT_BED
};
const facts = {
	...DEFAULT_FACTS,
	ruleSet: 'uk' as const,
	contaminants: ['styrene', 'toluene', 'n-butyl-acetate'].map((substance) => ({
		substance,
		name: substance,
		form: 'vapour' as const,
		concentration: { value: 40, unit: 'ppm' as const }
	}))
};

/** Mean time of one piece of work, after a warm-up. */
function time(name: string, n: number, work: (i: number) => unknown): void {
	for (let i = 0; i < Math.min(200, n); i++) work(i);
	const started = performance.now();
	for (let i = 0; i < n; i++) work(i);
	const micros = ((performance.now() - started) / n) * 1000;
	console.log(name.padEnd(28), `${micros.toFixed(1)} µs`.padStart(11));
}

console.log('\nCore');
time('one service life', 20_000, (i) =>
	serviceLife({ ...input, concentrationPpm: 10 + (i % 900) })
);
time('one hazard decision', 5000, () => decide(facts));
const decision = decide(facts);
time('what would change it', 200, () => whatWouldChange(facts, decision));
time('sweep of 100,000 cases', 1, () => {
	const walk = walkSweep({
		substance: toluene,
		bed: DEFAULT_BED,
		filters: 2,
		concentrationPpm: { from: 10, to: 900, steps: 25 },
		flowLPerMin: { from: 30, to: 85, steps: 20 },
		temperatureC: { from: 0, to: 35, steps: 10 },
		relativeHumidityPercent: { from: 30, to: 95, steps: 20 }
	});
	while (!walk.next().done);
});

const room = isotherm(293.15);
time('one state of air', 50_000, (i) => densityAt(room, 1 + (i % 400)));
time('one state, new temperature', 20_000, (i) => densityAt(isotherm(240 + (i % 100)), 301));
const bank = (pressureBar: number) => ({ waterVolumeL: 50, pressureBar });
time('six fills from four banks', 2000, () =>
	cascadeFill({
		banks: [150, 200, 250, 300].map(bank),
		cylinder: { waterVolumeL: 6.8, pressureBar: 50 },
		fills: 6
	})
);

const table = confusion(500);
console.log('\nBench: 500 seeded traces with known truth');
for (const [truth, verdicts] of Object.entries(table.table))
	console.log(
		truth.padEnd(28),
		Object.entries(verdicts)
			.map(([verdict, n]) => `${verdict} ${n}`)
			.join(', ')
	);
console.log('leaking, passed beyond the guard band'.padEnd(44), table.leakingPassed);
console.log(`repeated without cause, of ${table.sound}`.padEnd(44), table.wrongRepeat);
console.log('sensor fault, not repeated'.padEnd(44), table.faultyNotRepeated);
time('judging one trace', 20, () => confusion(1));
