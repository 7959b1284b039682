import { falseDiscovery } from '../stats/false-discovery.ts';
import { chiSquareAbove } from '../stats/gamma.ts';
import { regress, type Regression } from '../stats/regression.ts';
import { normalQuantile } from '../stats/tolerance.ts';

/** Alike observations: how often they failed, how often they could have, and what may be the cause. */
export interface Cell {
	failures: number;
	/** Inspections, or days in service. */
	exposure: number;
	/** What each may owe it to: lot, model, place, wash agent; a level each, left out where not known. */
	of: Readonly<Record<string, string>>;
}

export interface Cause {
	/** Such as lot. */
	factor: string;
	/** Such as L-2507. */
	level: string;
	failures: number;
	exposure: number;
	/** How many times as often as the rest fails, the other causes taken into account; with 95 % interval. */
	ratio: number;
	lower: number;
	upper: number;
	/** Chance of so much by chance alone, held down for all that were looked at. Benjamini-Hochberg. */
	pValue: number;
}

export interface CausesFound {
	/** The strongest first. */
	causes: Cause[];
	/** How many levels were looked at. */
	looked: number;
	failures: number;
	exposure: number;
	/** Too little failed to tell causes apart. */
	few: boolean;
}

/** Not more than the three strongest are named. */
const MOST = 3;
/** Share of false finds among all finds that is borne. Common practice. */
const FALSE_FINDS = 0.05;
/** A level with fewer failures is never named. Common practice. */
const FEWEST_OF_LEVEL = 4;
/** Fewer failures altogether tell no causes apart. Common practice: about ten for each cause that is looked for. */
const FEWEST_FAILURES = 10;

/**
 * Which of several possible causes go with failing, each with the others taken into account: Poisson regression, the strongest level taken
 * in first by its likelihood ratio (published: Wilks 1938), then the next beside it, as long as it is more than chance among all that
 * were looked at (Benjamini & Hochberg 1995). Counts that scatter more than chance are allowed for (quasi-likelihood, McCullagh & Nelder
 * 1989). Published, from memory.
 */
export function causesOf(cells: readonly Cell[]): CausesFound {
	const known = cells.filter(({ exposure }) => exposure > 0);
	const failures = known.reduce((sum, { failures: y }) => sum + y, 0);
	const exposure = known.reduce((sum, { exposure: n }) => sum + n, 0);
	const levels = levelsOf(known);
	const found: CausesFound = {
		causes: [],
		looked: levels.length,
		failures,
		exposure,
		few: failures < FEWEST_FAILURES
	};
	if (found.few) return found;
	const chosen: Level[] = [];
	while (chosen.length < MOST) {
		const without = fit(known, chosen);
		if (!without) break;
		const tried = levels
			.filter((level) => !chosen.includes(level))
			.flatMap((level) => {
				const fitted = fit(known, [...chosen, level]);
				const gain = fitted ? (without.deviance - fitted.deviance) / scatter(fitted) : 0;
				return [{ level, fitted, pValue: gain > 0 ? chiSquareAbove(gain, 1) : 1 }];
			});
		const adjusted = falseDiscovery(tried.map(({ pValue }) => pValue));
		const [best] = tried
			.map((one, i) => ({ ...one, pValue: adjusted[i] ?? 1, worse: worseBy(one.fitted) }))
			// What fails less than the rest is no cause to look for.
			.filter(({ worse, level }) => worse > 0 && level.failures >= FEWEST_OF_LEVEL)
			.sort((a, b) => a.pValue - b.pValue || b.worse - a.worse);
		if (!best?.fitted || best.pValue > FALSE_FINDS) break;
		chosen.push(best.level);
		found.causes.push({
			...best.level,
			...ratioOf(best.fitted, chosen.length),
			pValue: best.pValue
		});
	}
	// Each beside all others at the end.
	const last = fit(known, chosen);
	if (last) found.causes = found.causes.map((cause, i) => ({ ...cause, ...ratioOf(last, i + 1) }));
	return found;
}

interface Level {
	factor: string;
	level: string;
	failures: number;
	exposure: number;
}
function levelsOf(cells: readonly Cell[]): Level[] {
	const levels = new Map<string, Level>();
	for (const cell of cells)
		for (const [factor, level] of Object.entries(cell.of)) {
			const key = `${factor}\n${level}`;
			const one = levels.get(key) ?? { factor, level, failures: 0, exposure: 0 };
			one.failures += cell.failures;
			one.exposure += cell.exposure;
			levels.set(key, one);
		}
	return [...levels.values()];
}

const fit = (cells: readonly Cell[], levels: readonly Level[]): Regression | null =>
	regress({
		law: 'poisson',
		design: cells.map((cell) => [
			1,
			...levels.map(({ factor, level }) => (cell.of[factor] === level ? 1 : 0))
		]),
		failures: cells.map(({ failures }) => failures),
		size: cells.map(({ exposure }) => exposure)
	});

const scatter = ({ dispersion }: Regression): number => Math.max(1, dispersion);
const worseBy = (fitted: Regression | null): number => fitted?.coefficients.at(-1) ?? 0;

function ratioOf(fitted: Regression, at: number) {
	const log = fitted.coefficients[at] ?? 0;
	const spread = normalQuantile(0.975) * (fitted.errors[at] ?? 0) * Math.sqrt(scatter(fitted));
	return { ratio: Math.exp(log), lower: Math.exp(log - spread), upper: Math.exp(log + spread) };
}

/** A cause in plain words. */
export function causeWords({ factor, level, ratio, lower, upper, failures }: Cause): string {
	const times = (x: number) => (x >= 10 ? x.toFixed(0) : x.toFixed(1));
	return `${factor.charAt(0).toUpperCase() + factor.slice(1)} ${level}: ${failures} faults, ${times(ratio)} times as many as the rest; between ${times(lower)} and ${times(upper)} times.`;
}
