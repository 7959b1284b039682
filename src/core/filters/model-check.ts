import { findSubstance } from '../data/substances.ts';
import { TWIN_CARTRIDGE_MINUTES } from '../data/twin-cartridge-tests.ts';
import { geometricMean, geometricStandardDeviation, rankCorrelation } from '../stats/sample.ts';
import { adsorbateOf, serviceLife, VALIDATED_ABOVE_MIN } from './service-life.ts';
import { DEFAULT_BED } from './wheeler-jonas.ts';

/** Conditions of the twin-cartridge tests. Published: Nelson & Harder, AIHA J. 1974-76; from memory. */
export const TEST_CONDITIONS = {
	concentrationPpm: 1000,
	flowLPerMin: 53.3,
	filters: 2,
	temperatureC: 22,
	relativeHumidityPercent: 50,
	breakthroughFraction: 0.1
} as const;

export interface ModelCheckPoint {
	key: string;
	name: string;
	measuredMin: number;
	predictedMin: number;
	/** Counts in the statistics. */
	validated: boolean;
}

export interface ModelCheck {
	points: ModelCheckPoint[];
	/** Over the substances above the validated time. */
	n: number;
	meanRatio: number;
	geometricSd: number;
	rankCorrelation: number;
}

/** The model against the twin-cartridge tests, recomputed from the data every time it is asked for. */
export function checkModel(): ModelCheck {
	const points = Object.entries(TWIN_CARTRIDGE_MINUTES).flatMap(([key, measuredMin]) => {
		const substance = findSubstance(key);
		if (!substance) return [];
		const { breakthroughMin } = serviceLife({
			...TEST_CONDITIONS,
			adsorbate: adsorbateOf(substance, TEST_CONDITIONS.temperatureC),
			bed: DEFAULT_BED
		});
		return [
			{
				key,
				name: substance.name,
				measuredMin,
				predictedMin: breakthroughMin,
				validated: measuredMin > VALIDATED_ABOVE_MIN
			}
		];
	});
	const held = points.filter((point) => point.validated);
	const ratios = held.map((point) => point.predictedMin / point.measuredMin);
	return {
		points,
		n: held.length,
		meanRatio: geometricMean(ratios),
		geometricSd: geometricStandardDeviation(ratios),
		rankCorrelation: rankCorrelation(
			held.map((point) => point.predictedMin),
			held.map((point) => point.measuredMin)
		)
	};
}
