/**
 * A simulated closed volume on the pressure bench: elastic, leaking through an orifice, settling towards room
 * temperature, under a drifting barometer, read by a sensor with noise, resolution and faults. Seeded.
 */
import { Chance } from '../chance.ts';

/** How the sensor can lie. */
export const SENSOR_FAULTS = [
	'freeze',
	'clip',
	'step',
	'gap',
	'noise',
	'wrong port',
	'unplugged'
] as const;
export type SensorFault = 'none' | (typeof SENSOR_FAULTS)[number];

export interface BenchOptions {
	seed: number;
	/** Gauge pressure when the hold begins. */
	setPa: number;
	seconds: number;
	perSecond: number;
	/** Steady leak at the set pressure, Pa per minute in its own direction. */
	leakPaPerMin: number;
	/** What still settles when the hold begins, and how fast. */
	settlingPa?: number;
	settlingS?: number;
	/** Change of the air inside over the hold, K, linear. */
	temperatureRiseK?: number;
	/** Whether the instrument measures the temperature inside. */
	measuresTemperature?: boolean;
	barometerDriftPa?: number;
	measuresBarometer?: boolean;
	noisePa?: number;
	resolutionPa?: number;
	fault?: SensorFault;
}

export interface BenchReading {
	s: number;
	pa: number;
	temperatureC?: number;
	barometerPa?: number;
}

const AMBIENT_PA = 101_325;
const ROOM_C = 20;
const KELVIN = 273.15;

/** True pressure without any sensor, s seconds into the hold; the leak falls with the pressure. */
export function truePressurePa(options: BenchOptions, s: number): number {
	const { setPa, leakPaPerMin, settlingPa = 0, settlingS = 60, seconds } = options;
	const sign = Math.sign(setPa);
	// An orifice leak in proportion to the pressure: exponential with the given rate at the start.
	const rate = leakPaPerMin / 60 / Math.abs(setPa);
	const leaked = setPa * Math.exp(-rate * s);
	const settled = sign * settlingPa * (Math.exp(-s / settlingS) - 1);
	const kelvin = ROOM_C + KELVIN;
	const warm = ((options.temperatureRiseK ?? 0) * s) / seconds;
	const thermal = ((AMBIENT_PA + setPa) * warm) / kelvin;
	const barometer = ((options.barometerDriftPa ?? 0) * s) / seconds;
	return leaked + settled + thermal - barometer;
}

/** The readings that the instrument sends over a hold. */
export function benchTrace(options: BenchOptions): BenchReading[] {
	const { seconds, perSecond, noisePa = 2, resolutionPa = 0.1, fault = 'none' } = options;
	const chance = new Chance(options.seed);
	const count = Math.floor(seconds * perSecond);
	const at = Math.floor(count * chance.between(0.25, 0.5));
	const readings: BenchReading[] = [];
	let frozen: number | undefined;
	for (let i = 0; i <= count; i++) {
		const s = i / perSecond;
		const noise = chance.normal() * noisePa * (fault === 'noise' ? 12 : 1);
		let pa = truePressurePa(options, s) + noise;
		if (fault === 'freeze' && i >= at) pa = frozen ??= pa;
		if (fault === 'clip')
			pa = Math.sign(options.setPa) * Math.min(Math.abs(pa), Math.abs(options.setPa) * 0.93);
		if (fault === 'step' && i >= at) pa -= options.setPa * 0.12;
		if (fault === 'wrong port') pa = -pa;
		if (fault === 'gap' && i > at && s < at / perSecond + 25) continue;
		if (fault === 'unplugged' && i > at) break;
		readings.push({
			s,
			pa: Math.round(pa / resolutionPa) * resolutionPa,
			...(options.measuresTemperature
				? {
						temperatureC:
							ROOM_C + ((options.temperatureRiseK ?? 0) * s) / seconds + chance.normal() * 0.02
					}
				: {}),
			...(options.measuresBarometer
				? {
						barometerPa:
							AMBIENT_PA + ((options.barometerDriftPa ?? 0) * s) / seconds + chance.normal()
					}
				: {})
		});
	}
	return readings;
}
