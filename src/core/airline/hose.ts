import { ATMOSPHERE_BAR, FREE_AIR_C } from '../air/air-state.ts';
import { AIR_MOLAR_MASS_G_PER_MOL } from '../data/air-equation.ts';
import { GAS_CONSTANT, ZERO_CELSIUS_K } from '../units/concentration.ts';
import {
	InputError,
	maker,
	published,
	type Origin,
	type Reason,
	type Verdict
} from '../verdict.ts';

/** Below this Reynolds number the flow is laminar. Published: any text of fluid mechanics. */
const LAMINAR_RE = 2300;
/** Roughness of rubber and plastic hose, mm. Common practice. */
export const HOSE_ROUGHNESS_MM = 0.01;
/** Most pressure at the inlet of an airline, bar: 863 kPa, 125 psi. Published: 42 CFR 84 subpart J; from memory. */
export const MOST_SUPPLY_BAR = 8.63;
/** Longest hose, m: 300 ft. Published: 42 CFR 84 subpart J; from memory. */
export const LONGEST_HOSE_M = 91;
/** Most flow to one wearer, free L/min. Published: 42 CFR 84 subpart J; from memory. */
export const MOST_FLOW_L_PER_MIN = 425;
/** Least flow, free L/min. Published: 42 CFR 84 subpart J; from memory. */
export const LEAST_FLOW_L_PER_MIN = { 'tight-fitting': 115, hood: 170 } as const;
const RULE = published('42 CFR 84 subpart J');
const PA_PER_BAR = 1e5;
const STEPS = 60;
/** Flows are said in tenths. */
const round = (lPerMin: number): number => Math.round(lPerMin * 10) / 10;

/** Dynamic viscosity of air, Pa·s. Published: Sutherland's law, 1.716e-5 at 273.15 K, 110.4 K; from memory. */
export const viscosityPaS = (kelvin: number): number =>
	(1.716e-5 * (kelvin / 273.15) ** 1.5 * (273.15 + 110.4)) / (kelvin + 110.4);

/**
 * Darcy friction factor: 64/Re when laminar, else the Colebrook equation by fixed-point iteration.
 * Published: Colebrook, J. Inst. Civ. Eng. 11 (1939) 133; from memory.
 * @param relativeRoughness height of the roughness over the bore
 */
export function frictionFactor(reynolds: number, relativeRoughness: number): number {
	if (!(reynolds > 0)) throw new InputError('reynolds', 'There is no friction without flow.');
	if (reynolds < LAMINAR_RE) return 64 / reynolds;
	let x = 8;
	for (let i = 0; i < STEPS; i++) {
		const next = -2 * Math.log10(relativeRoughness / 3.7 + (2.51 * x) / reynolds);
		if (Math.abs(next - x) < 1e-12) break;
		x = next;
	}
	return 1 / (x * x);
}

export interface HoseInput {
	/** Gauge. */
	supplyBar: number;
	boreMm: number;
	lengthM: number;
	/** Free air, 1.01325 bar and 20 °C. */
	flowLPerMin: number;
	temperatureC?: number | undefined;
	roughnessMm?: number | undefined;
	fittingsEquivalentM?: number | undefined;
	/** Least pressure that the wearer's valve is approved for, gauge bar. */
	leastOutletBar?: number | undefined;
	/** Most pressure that it is approved for, gauge bar. */
	mostOutletBar?: number | undefined;
	/** What a wearer breathes from at the end; left out: nobody knows. */
	wearing?: keyof typeof LEAST_FLOW_L_PER_MIN | undefined;
	/** How many breathe from the end of it, each with the same share of the flow; one where left out. */
	wearers?: number | undefined;
}

export interface HoseFlow {
	outletBar: number;
	reynolds: number;
	frictionFactor: number;
}

/**
 * Pressure at the end of a hose: isothermal compressible flow with friction,
 * p₁² − p₂² = G²·R·T/M·(f·L/D + 2·ln(p₁/p₂)). Published: any text of gas dynamics; from memory.
 * @returns undefined outlet when the hose chokes: no pressure drives that much through it
 * @throws InputError at the field at fault
 */
export function hoseFlow(input: HoseInput): Omit<HoseFlow, 'outletBar'> & { outletBar?: number } {
	check(input);
	const { supplyBar, boreMm, lengthM, flowLPerMin, temperatureC = FREE_AIR_C } = input;
	const kelvin = temperatureC + ZERO_CELSIUS_K;
	const bore = boreMm / 1000;
	const perKg = (GAS_CONSTANT / AIR_MOLAR_MASS_G_PER_MOL) * 1000;
	const freeDensity = (ATMOSPHERE_BAR * PA_PER_BAR) / (perKg * (FREE_AIR_C + ZERO_CELSIUS_K));
	const massFlux = ((flowLPerMin / 60_000) * freeDensity) / ((Math.PI * bore * bore) / 4);
	const reynolds = (massFlux * bore) / viscosityPaS(kelvin);
	const factor = frictionFactor(reynolds, (input.roughnessMm ?? HOSE_ROUGHNESS_MM) / boreMm);
	const resistance = (factor * (lengthM + (input.fittingsEquivalentM ?? 0))) / bore;
	const drive = massFlux * massFlux * perKg * kelvin;
	const supply = (supplyBar + ATMOSPHERE_BAR) * PA_PER_BAR;
	/** What is left over at an outlet pressure; it rises with it down to where the flow chokes. */
	const over = (outlet: number) =>
		outlet * outlet - supply * supply + drive * (resistance + 2 * Math.log(supply / outlet));
	const choking = Math.sqrt(drive);
	if (choking >= supply || over(choking) > 0) return { reynolds, frictionFactor: factor };
	let [low, high] = [choking, supply];
	for (let i = 0; i < STEPS; i++) {
		const middle = (low + high) / 2;
		if (over(middle) > 0) high = middle;
		else low = middle;
	}
	return {
		outletBar: (low + high) / 2 / PA_PER_BAR - ATMOSPHERE_BAR,
		reynolds,
		frictionFactor: factor
	};
}

/**
 * The flow judged: pressure, length and flow of the approval, and what the wearer's valve needs. A hose that chokes
 * fails, with nothing at its end.
 * @throws InputError at the field at fault
 */
export function judgeHose(input: HoseInput): Verdict<'pass' | 'fail'> & HoseFlow {
	const flow = hoseFlow(input);
	const {
		supplyBar,
		boreMm,
		lengthM,
		flowLPerMin,
		leastOutletBar = 0,
		mostOutletBar,
		wearing,
		wearers = 1
	} = input;
	/** A share carries rounding in its last bits; it must not decide. */
	const eachLPerMin = Math.round((flowLPerMin / wearers) * 1e6) / 1e6;
	const outletBar = flow.outletBar ?? 0;
	const within = (
		rule: string,
		text: string,
		value: number,
		limit: number,
		unit: string,
		how: 'least' | 'most',
		origin: Origin
	): Reason => ({
		rule,
		text,
		origin,
		limit,
		value,
		unit,
		margin: how === 'least' ? value - limit : limit - value
	});
	const band = maker('pressure band of the rig');
	const least = LEAST_FLOW_L_PER_MIN[wearing ?? 'tight-fitting'];
	const reasons: Reason[] = [
		...(flow.outletBar === undefined
			? [
					{
						rule: 'hose.chokes',
						text: `${flowLPerMin} L/min does not pass ${lengthM} m of ${boreMm} mm hose from ${supplyBar} bar: wider, shorter, or more pressure.`,
						origin: published(
							'isothermal flow with friction: no pressure at its end drives more through it'
						),
						margin: -1
					}
				]
			: [
					within(
						'hose.outlet',
						`${outletBar.toFixed(2)} bar at the end, ${leastOutletBar} at least.`,
						outletBar,
						leastOutletBar,
						'bar',
						'least',
						band
					)
				]),
		...(mostOutletBar === undefined
			? []
			: [
					within(
						'hose.outlet-high',
						`${outletBar.toFixed(2)} bar at the end, ${mostOutletBar} at most.`,
						outletBar,
						mostOutletBar,
						'bar',
						'most',
						band
					)
				]),
		within(
			'hose.supply',
			`Supply ${supplyBar} bar, ${MOST_SUPPLY_BAR} at most.`,
			supplyBar,
			MOST_SUPPLY_BAR,
			'bar',
			'most',
			RULE
		),
		within(
			'hose.length',
			`${lengthM} m of hose, ${LONGEST_HOSE_M} at most.`,
			lengthM,
			LONGEST_HOSE_M,
			'm',
			'most',
			RULE
		),
		within(
			'hose.flow',
			`Worked out at ${round(eachLPerMin)} L/min each; ${wearing ?? 'a tight-fitting mask'} takes ${least} at least.`,
			eachLPerMin,
			least,
			'L/min',
			'least',
			RULE
		),
		...(wearing
			? [
					within(
						'hose.flow-high',
						`${round(eachLPerMin)} L/min to one wearer, ${MOST_FLOW_L_PER_MIN} at most.`,
						eachLPerMin,
						MOST_FLOW_L_PER_MIN,
						'L/min',
						'most',
						RULE
					)
				]
			: [])
	];
	const failed = reasons.filter((r) => (r.margin ?? 0) < 0);
	return {
		...flow,
		outletBar,
		outcome: failed.length ? 'fail' : 'pass',
		reasons: [...failed, ...reasons.filter((r) => !failed.includes(r))]
	};
}

function check({ supplyBar, boreMm, lengthM, flowLPerMin, ...rest }: HoseInput): void {
	const within = (path: string, value: number, from: number, to: number, unit: string) => {
		if (!(value >= from && value <= to))
			throw new InputError(path, `${value} ${unit} is outside ${from} to ${to} ${unit}.`);
	};
	within('supplyBar', supplyBar, 0, 20, 'bar');
	within('boreMm', boreMm, 2, 100, 'mm');
	within('lengthM', lengthM, 0, 2000, 'm');
	within('flowLPerMin', flowLPerMin, 0.1, 20_000, 'L/min');
	within('temperatureC', rest.temperatureC ?? FREE_AIR_C, -40, 70, '°C');
	within('roughnessMm', rest.roughnessMm ?? HOSE_ROUGHNESS_MM, 0, boreMm / 4, 'mm');
	within('fittingsEquivalentM', rest.fittingsEquivalentM ?? 0, 0, 1000, 'm');
	within('leastOutletBar', rest.leastOutletBar ?? 0, 0, 20, 'bar');
	if (rest.wearers !== undefined && !(Number.isInteger(rest.wearers) && rest.wearers >= 1))
		throw new InputError('wearers', 'A whole number of wearers, one or more.');
	within('mostOutletBar', rest.mostOutletBar ?? 20, rest.leastOutletBar ?? 0, 20, 'bar');
}
