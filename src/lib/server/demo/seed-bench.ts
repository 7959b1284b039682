import { recipeOf } from '../../../core/bench/recipes.ts';
import { judgeTrace, type TraceSample } from '../../../core/bench/trace.ts';
import { packTrace } from '../bench/trace-bytes.ts';
import { benchTest } from '../db/schema/index.ts';
import type { Seed } from './seeding.ts';

/** Suits with pressure tests behind them: leak at the first test and what it grows by, Pa a minute. Invented. */
const TESTED = [
	['GS-0207', 22, 4.1],
	['GS-0208', 9, 0],
	['GS-0209', 12, 0.4]
] as const;
const TESTS = 6;
const DAYS_APART = 30;
const VOLUME_L = 620;
const PER_SECOND = 2;

/** Earlier tests of some suits, so that the bench has something to compare with. */
export async function seedBench(seed: Seed, idOf: ReadonlyMap<string, string>): Promise<void> {
	const recipe = recipeOf('suit-en');
	for (const [tag, firstLeak, growth] of TESTED) {
		const itemId = idOf.get(tag);
		if (!itemId) continue;
		for (let test = 0; test < TESTS; test++) {
			const leak = firstLeak + growth * test + seed.chance.next();
			const samples = trace(seed, recipe.setPa, recipe.holdSeconds, leak);
			const verdict = judgeTrace(recipe, samples, { volumeL: VOLUME_L });
			const at = seed.moment(4 + (TESTS - 1 - test) * DAYS_APART);
			const by = seed.person('odd');
			const id = seed.chance.uuid();
			const { outcome, reasons, leakPaPerMin, startPa, correctedEndPa } = verdict;
			const endedAt = new Date(at.getTime() + recipe.holdSeconds * 1000);
			await seed.tx.insert(benchTest).values({
				id,
				itemId,
				recipe: recipe.key,
				recipeVersion: recipe.version,
				instrument: 'Pressure bench 1',
				volumeL: VOLUME_L,
				bench: 1,
				startedBy: by,
				startedAt: at,
				endedAt,
				trace: packTrace(samples),
				outcome,
				reasons,
				leakPaPerMin,
				startPa,
				correctedEndPa
			});
			seed.happen({
				at: endedAt,
				by,
				action: 'bench.judged',
				of: id,
				itemId,
				payload: {
					recipe: recipe.key,
					version: recipe.version,
					outcome,
					leakPaPerMin: Number(leakPaPerMin.toFixed(3))
				}
			});
		}
	}
}

/** A suit that leaks through a small hole while its cloth still gives a little, read with noise. */
function trace(seed: Seed, setPa: number, seconds: number, leakPaPerMin: number): TraceSample[] {
	const perSecond = leakPaPerMin / 60 / setPa;
	return Array.from({ length: seconds * PER_SECOND + 1 }, (_, i) => {
		const s = i / PER_SECOND;
		const cloth = 14 * (1 - Math.exp(-s / 45));
		const noise = (seed.chance.next() - 0.5) * 4;
		return { s, pa: Number((setPa * Math.exp(-perSecond * s) - cloth + noise).toFixed(1)) };
	});
}
