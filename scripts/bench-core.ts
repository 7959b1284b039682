// Prints how long the computations of the core take. Needs no database.
import { Chance } from '../instruments/chance.ts';
import { recipeOf } from '../src/core/bench/recipes.ts';
import { judgeTrace } from '../src/core/bench/trace.ts';
import { kitOut } from '../src/core/handout/kit-out.ts';
import { fitConfusion } from '../instruments/fit-counter/confusion.ts';
import { confusion } from '../instruments/pressure-bench/confusion.ts';
import { benchTrace } from '../instruments/pressure-bench/simulate.ts';
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

/** A table of truths against verdicts. */
function print(title: string, table: Record<string, Record<string, number>>): void {
	console.log(`\n${title}`);
	for (const [truth, verdicts] of Object.entries(table))
		console.log(
			truth.padEnd(28),
			Object.entries(verdicts)
				.map(([verdict, n]) => `${verdict} ${n}`)
				.join(', ')
		);
}

const bench = confusion(500);
print('Bench: 500 seeded traces with known truth', bench.table);
console.log('leaking, passed beyond the guard band'.padEnd(44), bench.leakingPassed);
console.log(`repeated without cause, of ${bench.sound}`.padEnd(44), bench.wrongRepeat);
console.log('sensor fault, not repeated'.padEnd(44), bench.faultyNotRepeated);
const recipe = recipeOf('suit-en');
const traces = Array.from({ length: 20 }, (_, i) =>
	benchTrace({
		seed: 20_261 + i,
		setPa: recipe.setPa,
		seconds: recipe.holdSeconds,
		perSecond: 2,
		leakPaPerMin: 10 + i * 3,
		settlingPa: i * 2,
		settlingS: 15 + i,
		temperatureRiseK: 0.1,
		measuresTemperature: true,
		barometerDriftPa: 5,
		measuresBarometer: true,
		fault: 'none'
	})
);
time('judging one trace', 400, (i) =>
	judgeTrace(recipe, traces[i % traces.length] ?? [], { uncertaintyPa: 3 })
);

const fits = fitConfusion(500);
print('Fit tests: 500 seeded ones with known true fit', fits.table);
console.log('true fit below half of the level, passed'.padEnd(44), fits.passedBelowHalf);
console.log('every fit above twice the level, failed'.padEnd(44), fits.failedAboveTwice);
console.log('counter at fault, judged'.padEnd(44), fits.faultyJudged);
time('simulating and judging one fit test', 20, () => fitConfusion(1));

/** A team before a store, seeded. */
function team(wearers: number, sets: number) {
	const chance = new Chance(20_261);
	const fit = () => ({
		model: String(Math.floor(chance.between(0, 5))),
		size: 'SML'[Math.floor(chance.between(0, 3))] ?? 'M'
	});
	return {
		wearers: Array.from({ length: wearers }, (_, i) => ({ id: `w${i}`, fits: [fit(), fit()] })),
		sets: Array.from({ length: sets }, (_, i) => ({
			tag: `s${i}`,
			...fit(),
			minutesOfAir: chance.between(20, 50)
		}))
	};
}
console.log('\nKitting out');
const [plenty, few] = [team(40, 400), team(40, 30)];
time('40 wearers, 400 sets', 3, () => kitOut(plenty.wearers, plenty.sets, 30));
time('40 wearers, 30 sets, and what would help', 3, () => kitOut(few.wearers, few.sets, 30));
