import type { ParticleClass } from '../data/protection-factors.ts';
import type { EnGasType, RuleSet, UsGasType } from '../data/substance.ts';
import {
	CLASS_LIMIT_PPM,
	classFor,
	type EnFilterCode,
	type GasClass,
	type UsFilterCode
} from '../filters/filter-code.ts';
import { classTestMinutes } from '../filters/class-test.ts';
import { LOW_BOILER_C } from '../filters/service-life.ts';
import type { Contaminant } from './facts.ts';
import { TRACE_RATIO } from './traces.ts';

/** Highest concentration for chemical cartridges, ppm. Published: 42 CFR 84.190 table 11; from memory. */
const US_CARTRIDGE_LIMIT_PPM: Partial<Record<UsGasType, number>> = { OV: 1000, AM: 300 };
/** The same, where the substance has its own row. */
const US_SUBSTANCE_LIMIT_PPM: Record<string, number> = {
	chlorine: 10,
	'hydrogen-chloride': 50,
	'sulphur-dioxide': 50,
	methylamine: 100
};
/**
 * Low boilers: highest concentration where the group is not known, ppm.
 * Published: EN 14387 and the group rules for AX, group 1; from memory. Held to in both packs: carbon is carbon.
 */
export const AX_LIMIT_PPM = 500;

/** How long the filters should last, at what flow, shared by how many. */
export interface WantedLife {
	/** null: the concentration alone fixes the class. */
	minutes: number | null;
	flowLPerMin: number;
	filters: number;
}

/** Types that come in one class only. */
const UNCLASSED: readonly EnGasType[] = ['AX', 'SX', 'Hg', 'NO', 'CO'];

/** Where nobody knows how much gas a dust or mist gives off. Common practice. */
const UNKNOWN_CLASS: GasClass = 2;

/** The lowest class for the concentration and, where a life is wished for, for that; class 3 when none lasts. */
function neededClass(
	type: EnGasType,
	c: Contaminant,
	wanted: WantedLife,
	all: readonly Contaminant[]
): GasClass | undefined {
	if (UNCLASSED.includes(type)) return 1;
	// What one type has to hold adds up.
	const alike = all.filter((other) => enTypeOf(other) === type);
	const ppm = alike.reduce((sum, other) => sum + (other.peakPpm ?? other.ppm ?? 0), 0);
	const lowest = classFor(ppm);
	const least =
		lowest === 1 && alike.some((other) => other.peakPpm === undefined) ? UNKNOWN_CLASS : lowest;
	if (!least || wanted.minutes === null || !c.ppm) return least;
	const { minutes } = wanted;
	const lasting = ([1, 2, 3] as const).find(
		(gasClass) =>
			gasClass >= least && (classTestMinutes(type, gasClass, c, wanted) ?? Infinity) >= minutes
	);
	return lasting ?? 3;
}

/** Filter type of EN 14387 for a contaminant; undefined for particles and where none is known. */
export function enTypeOf(c: Contaminant): EnGasType | undefined {
	if (!c.gas) return undefined;
	if (c.substance) return c.substance.en;
	if (!c.organic || c.boilingPointC === undefined) return undefined;
	return c.boilingPointC > LOW_BOILER_C ? 'A' : 'AX';
}

/** Designation of 42 CFR 84 for a contaminant. */
export function usTypeOf(c: Contaminant): UsGasType | undefined {
	if (!c.gas) return undefined;
	return c.substance ? c.substance.us : c.organic ? 'OV' : undefined;
}

/** Highest concentration in ppm that a filter may be worn in against a contaminant. */
export function filterLimitPpm(c: Contaminant, ruleSet: RuleSet): number {
	if (!c.gas) return Infinity;
	if (ruleSet === 'uk') return enTypeOf(c) === 'AX' ? AX_LIMIT_PPM : CLASS_LIMIT_PPM[3];
	const type = usTypeOf(c);
	const most =
		US_SUBSTANCE_LIMIT_PPM[c.substance?.key ?? ''] ??
		(type ? US_CARTRIDGE_LIMIT_PPM[type] : undefined) ??
		Infinity;
	return enTypeOf(c) === 'AX' ? Math.min(most, AX_LIMIT_PPM) : most;
}

/** Whether two gases load the same part of a filter, or the limit is one of the whole filter. */
export const sameFilter = (a: Contaminant, b: Contaminant, ruleSet: RuleSet): boolean =>
	ruleSet === 'us' ? usTypeOf(a) === usTypeOf(b) : enTypeOf(a) !== 'AX' || enTypeOf(b) === 'AX';

/** The type that a contaminant takes beside the others: a trace of a low boiler goes with what the rest takes. */
function typeAmong(c: Contaminant, all: readonly Contaminant[]): EnGasType | undefined {
	const type = enTypeOf(c);
	const trace = type === 'AX' && (c.ratio ?? Infinity) <= TRACE_RATIO;
	return trace && all.some((other) => other !== c && other.organic && other.gas) ? 'A' : type;
}

/**
 * The smallest EN code that catches every contaminant, with the given particle class where there are
 * particles; null when a contaminant has no type or lies above class 3.
 */
export function neededEn(
	contaminants: readonly Contaminant[],
	particleClass: ParticleClass,
	wanted: WantedLife = { minutes: null, flowLPerMin: 40, filters: 2 }
): EnFilterCode | null {
	const code: EnFilterCode = { gas: {} };
	for (const c of contaminants) {
		if (c.particle) code.particle = particleClass;
		if (!c.gas) continue;
		const type = typeAmong(c, contaminants);
		const gasClass = type && neededClass(type, c, wanted, contaminants);
		if (!type || !gasClass) return null;
		const held = code.gas[type] ?? 1;
		code.gas[type] = gasClass > held ? gasClass : held;
		// Published: EN 14387, mercury and nitrous gas filters come with P3 only; from memory.
		if (type === 'Hg' || type === 'NO') code.particle = 'P3';
	}
	return code;
}

/** The smallest US code that catches every contaminant; null when one has no designation. */
export function neededUs(
	contaminants: readonly Contaminant[],
	oilAerosol: boolean
): UsFilterCode | null {
	const gas = new Set<UsGasType>();
	let particles = false;
	for (const c of contaminants) {
		if (c.particle) particles = true;
		if (!c.gas) continue;
		const type = usTypeOf(c);
		if (!type) return null;
		gas.add(type);
	}
	const oil = oilAerosol || contaminants.some((c) => c.form === 'oil aerosol');
	// Published: 42 CFR 84, N is not for oil; P keeps with oil as the maker states. From memory.
	return {
		gas: [...gas].sort((a, b) => (a === 'OV' ? -1 : b === 'OV' ? 1 : a.localeCompare(b))),
		...(particles ? { particle: oil ? 'P95' : 'N95' } : {})
	};
}
