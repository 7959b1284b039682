import type { ParticleClass } from '../data/protection-factors.ts';
import type { EnGasType, RuleSet, UsGasType } from '../data/substance.ts';
import {
	CLASS_LIMIT_PPM,
	classFor,
	type EnFilterCode,
	type UsFilterCode
} from '../filters/filter-code.ts';
import { LOW_BOILER_C } from '../filters/service-life.ts';
import type { Contaminant } from './facts.ts';

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
 * Published: EN 14387 and the group rules for AX, group 1; from memory.
 */
export const AX_LIMIT_PPM = 500;

/** Filter type of EN 14387 for a contaminant; undefined for particles and where none is known. */
export function enTypeOf(c: Contaminant): EnGasType | undefined {
	if (c.particle) return undefined;
	if (c.substance) return c.substance.en;
	if (!c.organic || c.boilingPointC === undefined) return undefined;
	return c.boilingPointC > LOW_BOILER_C ? 'A' : 'AX';
}

/** Designation of 42 CFR 84 for a contaminant. */
export function usTypeOf(c: Contaminant): UsGasType | undefined {
	if (c.particle) return undefined;
	return c.substance ? c.substance.us : c.organic ? 'OV' : undefined;
}

/** Highest concentration in ppm that a filter may be worn in against a contaminant. */
export function filterLimitPpm(c: Contaminant, ruleSet: RuleSet): number {
	if (c.particle) return Infinity;
	if (ruleSet === 'uk') return enTypeOf(c) === 'AX' ? AX_LIMIT_PPM : CLASS_LIMIT_PPM[3];
	const type = usTypeOf(c);
	return (
		US_SUBSTANCE_LIMIT_PPM[c.substance?.key ?? ''] ??
		(type ? US_CARTRIDGE_LIMIT_PPM[type] : undefined) ??
		Infinity
	);
}

/**
 * The smallest EN code that catches every contaminant, with the given particle class where there are
 * particles; null when a contaminant has no type or lies above class 3.
 */
export function neededEn(
	contaminants: readonly Contaminant[],
	particleClass: ParticleClass
): EnFilterCode | null {
	const code: EnFilterCode = { gas: {} };
	for (const c of contaminants) {
		if (c.particle) {
			code.particle = particleClass;
			continue;
		}
		const type = enTypeOf(c);
		const gasClass = type === 'AX' ? 1 : classFor(c.ppm ?? 0);
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
		if (c.particle) {
			particles = true;
			continue;
		}
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
