import type { Substance } from '../data/substance.ts';
import { InputError } from '../verdict.ts';
import { adsorbateOf, serviceLife } from './service-life.ts';
import type { Bed } from './wheeler-jonas.ts';

/** A range that is walked in equal steps; concentration in equal ratios. */
export interface Range {
	from: number;
	to: number;
	steps: number;
}

/** Every combination of the ranges is one case. */
export interface SweepSpec {
	substance: Substance;
	bed: Bed;
	filters: number;
	concentrationPpm: Range;
	flowLPerMin: Range;
	temperatureC: Range;
	relativeHumidityPercent: Range;
}

/** What the cases come to, cell by cell of concentration and humidity: the worst over flow and temperature. */
export interface SweepResult {
	cases: number;
	/** Cases that the model cannot take, such as above saturation. */
	refused: number;
	concentrationPpm: number[];
	relativeHumidityPercent: number[];
	/** worst[humidity][concentration]: least change time in minutes; null where every case was refused. */
	worst: (number | null)[][];
	/** The shortest of all, and where. */
	shortest: { minutes: number; at: SweepCase } | null;
}

export interface SweepCase {
	concentrationPpm: number;
	flowLPerMin: number;
	temperatureC: number;
	relativeHumidityPercent: number;
}

const MOST_CASES = 2_000_000;

/** How many cases a sweep has. @throws InputError by field on a range that cannot be walked. */
export function countCases(spec: SweepSpec): number {
	const cases = (
		['concentrationPpm', 'flowLPerMin', 'temperatureC', 'relativeHumidityPercent'] as const
	).reduce((product, field) => {
		const { from, to, steps } = spec[field];
		if (!(Number.isFinite(from) && Number.isFinite(to) && to >= from))
			throw new InputError(field, 'The range must run from a lower to a higher number.');
		if (!(Number.isInteger(steps) && steps >= 1 && steps <= 1000))
			throw new InputError(field, 'Between 1 and 1000 steps.');
		return product * steps;
	}, 1);
	if (!(spec.concentrationPpm.from > 0))
		throw new InputError('concentrationPpm', 'The concentration must be above zero.');
	if (cases > MOST_CASES)
		throw new InputError('steps', `${cases} cases; at most ${MOST_CASES}. Take fewer steps.`);
	return cases;
}

/**
 * Walks every case of a sweep. The caller says after how many cases it wants to hear; the generator yields the
 * number done and goes on, so that a worker can report and be stopped.
 */
export function* walkSweep(spec: SweepSpec, reportEvery = 5000): Generator<number, SweepResult> {
	const cases = countCases(spec);
	const concentrations = valuesOf(spec.concentrationPpm, true);
	const humidities = valuesOf(spec.relativeHumidityPercent);
	const flows = valuesOf(spec.flowLPerMin);
	const result: SweepResult = {
		cases,
		refused: 0,
		concentrationPpm: concentrations,
		relativeHumidityPercent: humidities,
		worst: humidities.map(() => concentrations.map(() => null)),
		shortest: null
	};
	let done = 0;
	for (const temperatureC of valuesOf(spec.temperatureC)) {
		const adsorbate = adsorbateOf(spec.substance, temperatureC);
		for (const flowLPerMin of flows)
			for (const [row, relativeHumidityPercent] of humidities.entries())
				for (const [column, concentrationPpm] of concentrations.entries()) {
					const at = { concentrationPpm, flowLPerMin, temperatureC, relativeHumidityPercent };
					take(result, row, column, at, minutesOf(spec, adsorbate, at));
					if (++done % reportEvery === 0) yield done;
				}
	}
	return result;
}

function minutesOf(
	spec: SweepSpec,
	adsorbate: ReturnType<typeof adsorbateOf>,
	at: SweepCase
): number | null {
	try {
		return serviceLife({
			...at,
			adsorbate,
			filters: spec.filters,
			breakthroughFraction: 0.1,
			bed: spec.bed,
			...(spec.substance.noFilter ? { noFilter: spec.substance.noFilter } : {})
		}).recommendedMin;
	} catch (error) {
		if (error instanceof InputError) return null;
		throw error;
	}
}

function take(
	result: SweepResult,
	row: number,
	column: number,
	at: SweepCase,
	minutes: number | null
): void {
	const cells = result.worst[row];
	if (minutes === null || !cells) {
		result.refused++;
		return;
	}
	const held = cells[column] ?? null;
	if (held === null || minutes < held) cells[column] = minutes;
	if (!result.shortest || minutes < result.shortest.minutes) result.shortest = { minutes, at };
}

function valuesOf({ from, to, steps }: Range, ratio = false): number[] {
	if (steps === 1) return [to];
	return Array.from({ length: steps }, (_, i) => {
		const share = i / (steps - 1);
		return ratio ? from * (to / from) ** share : from + (to - from) * share;
	});
}
