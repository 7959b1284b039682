import {
	commonPractice,
	InputError,
	published,
	type Origin,
	type Reason,
	type Verdict
} from '../verdict.ts';
import { moisture } from './moisture.ts';

/** Where a sample was taken: the limits of water differ. */
export type SampledAt = 'filling outlet' | 'cylinder' | 'airline';
export type AirStandard = 'en-12021' | 'grade-d';

/** What a laboratory or a tube gave; a figure that was not measured is left out. */
export interface AirSample {
	oxygenPercent?: number | undefined;
	coPpm?: number | undefined;
	co2Ppm?: number | undefined;
	oilMgPerM3?: number | undefined;
	waterMgPerM3?: number | undefined;
	/** Whether it smells of anything. */
	odour?: boolean | undefined;
	sampledAt: SampledAt;
	/** Pressure in the cylinder or the airline, gauge bar. */
	pressureBar: number;
	/** Lowest temperature that an airline is used at, or of the room about the compressor, °C. */
	lowestUseC?: number | undefined;
}

interface Limits {
	origin: Origin;
	oxygen: { from: number; to: number };
	coPpm: number;
	co2Ppm: number;
	oilMgPerM3: number;
}

/** Published: EN 12021; CGA G-7.1 grade D through 29 CFR 1910.134(i); from memory. */
const LIMITS: Record<AirStandard, Limits> = {
	'en-12021': {
		origin: published('EN 12021'),
		oxygen: { from: 20, to: 22 },
		coPpm: 5,
		co2Ppm: 500,
		oilMgPerM3: 0.5
	},
	'grade-d': {
		origin: published('CGA G-7.1 grade D, 29 CFR 1910.134(i)(1)'),
		oxygen: { from: 19.5, to: 23.5 },
		coPpm: 10,
		co2Ppm: 1000,
		oilMgPerM3: 5
	}
};

/** Water in air, mg/m³. Published: EN 12021; from memory. */
const EN_WATER = { outlet: 25, cylinderUpTo200: 50, cylinderAbove200: 35 } as const;
const EN_WATER_STEP_BAR = 200;
/** An airline is dry to this many kelvin below its lowest temperature. Published: EN 12021, 5 °C; 1910.134(i)(5)(ii), 10 °F; from memory. */
const BELOW_USE_K: Record<AirStandard, number> = { 'en-12021': 5, 'grade-d': 5.56 };
/** Dew point at atmospheric pressure of air in cylinders, °C. Published: 29 CFR 1910.134(i)(4)(iii), −50 °F; from memory. */
const GRADE_D_CYLINDER_DEW_C = -45.6;

/**
 * Judges an air sample by a standard. A figure that was not measured leaves it incomplete: it passes nothing.
 * @throws InputError at a figure that cannot be
 */
export function judgeAir(
	standard: AirStandard,
	sample: AirSample
): Verdict<'pass' | 'fail' | 'incomplete'> {
	const limits = LIMITS[standard];
	const { origin } = limits;
	const reasons: Reason[] = [];
	let missing = 0;
	const most = (name: string, path: keyof AirSample, unit: string, limit: number) => {
		const value = sample[path];
		if (typeof value !== 'number') return lacking(name, path);
		if (!(value >= 0)) throw new InputError(path, `${name} cannot be below zero.`);
		judge(name, value, unit, limit, limit - value);
	};
	const lacking = (name: string, path: string) => {
		missing++;
		reasons.push({ rule: `air.${path}.missing`, text: `${name} was not measured.`, origin });
	};
	const judge = (name: string, value: number, unit: string, limit: number, margin: number) =>
		reasons.push({
			rule: margin < 0 ? 'air.fail' : 'air.pass',
			text: `${name} ${round(value)} ${unit}, limit ${round(limit)}.`,
			origin,
			limit,
			value,
			unit,
			margin
		});

	const { oxygenPercent: oxygen } = sample;
	if (oxygen === undefined) lacking('Oxygen', 'oxygenPercent');
	else {
		if (!(oxygen >= 0 && oxygen <= 100))
			throw new InputError('oxygenPercent', `${oxygen} % of oxygen cannot be.`);
		const { from, to } = limits.oxygen;
		const high = oxygen - from > to - oxygen;
		judge('Oxygen', oxygen, '%', high ? to : from, Math.min(oxygen - from, to - oxygen));
	}
	most('Carbon monoxide', 'coPpm', 'ppm', limits.coPpm);
	most('Carbon dioxide', 'co2Ppm', 'ppm', limits.co2Ppm);
	most('Oil', 'oilMgPerM3', 'mg/m³', limits.oilMgPerM3);
	water();
	if (sample.odour === undefined) lacking('Odour', 'odour');
	else
		reasons.push({
			rule: sample.odour ? 'air.fail' : 'air.pass',
			text: sample.odour ? 'It smells.' : 'No odour.',
			origin
		});
	const failed = reasons.filter((r) => r.rule === 'air.fail');
	return {
		outcome: failed.length ? 'fail' : missing ? 'incomplete' : 'pass',
		// What is wrong stands first.
		reasons: [...failed, ...reasons.filter((r) => r.rule !== 'air.fail')]
	};

	function water(): void {
		const { waterMgPerM3: mg, sampledAt, pressureBar, lowestUseC } = sample;
		if (sampledAt !== 'airline' && standard === 'en-12021')
			return most('Water', 'waterMgPerM3', 'mg/m³', enWater(sampledAt, pressureBar));
		if (mg === undefined) return lacking('Water', 'waterMgPerM3');
		const dew = moisture({ mgPerM3: mg }, pressureBar);
		if (sampledAt === 'airline') {
			if (lowestUseC === undefined)
				throw new InputError('lowestUseC', 'The lowest temperature that the airline is used at.');
			const limit = lowestUseC - BELOW_USE_K[standard];
			return void judge(
				'Dew point at pressure',
				dew.atPressureC,
				'°C',
				limit,
				limit - dew.atPressureC
			);
		}
		judge(
			'Dew point at atmospheric pressure',
			dew.atAtmosphereC,
			'°C',
			GRADE_D_CYLINDER_DEW_C,
			GRADE_D_CYLINDER_DEW_C - dew.atAtmosphereC
		);
	}
}

const enWater = (sampledAt: SampledAt, pressureBar: number) =>
	sampledAt === 'filling outlet'
		? EN_WATER.outlet
		: pressureBar > EN_WATER_STEP_BAR
			? EN_WATER.cylinderAbove200
			: EN_WATER.cylinderUpTo200;

const round = (value: number) => Number(value.toPrecision(4));

/** How often air is tested where nothing else is stated, months. Common practice: quarterly at least. */
export const AIR_TEST_MONTHS = 3;
export const AIR_TEST_ORIGIN = commonPractice(
	'quarterly at least, and after any work on the compressor'
);
