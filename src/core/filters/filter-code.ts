import type { ParticleClass } from '../data/protection-factors.ts';
import type { EnGasType, UsGasType } from '../data/substance.ts';

export type GasClass = 1 | 2 | 3;

/** A filter designation under EN 14387 and EN 143. */
export interface EnFilterCode {
	gas: Partial<Record<EnGasType, GasClass>>;
	particle?: ParticleClass;
}

export type UsParticleClass = 'N95' | 'R95' | 'P95' | 'N99' | 'N100' | 'P100';

/** A filter designation under 42 CFR 84. */
export interface UsFilterCode {
	gas: UsGasType[];
	particle?: UsParticleClass;
}

/** Order in which the types are written. Published: EN 14387; from memory. */
export const EN_GAS_TYPES: readonly EnGasType[] = [
	'A',
	'AX',
	'B',
	'E',
	'K',
	'SX',
	'Hg',
	'NO',
	'CO'
];
const CLASSED: readonly EnGasType[] = ['A', 'B', 'E', 'K'];

/** Highest concentration of each class, ppm. Published: EN 14387; from memory. */
export const CLASS_LIMIT_PPM: Record<GasClass, number> = { 1: 1000, 2: 5000, 3: 10_000 };

/** Band colours. Published: EN 14387 and EN 143; from memory. The letter always stands beside the band. */
export const EN_BANDS: Record<EnGasType | 'P', { colour: string; hex: string }> = {
	A: { colour: 'brown', hex: '#7b4a1e' },
	AX: { colour: 'brown', hex: '#7b4a1e' },
	B: { colour: 'grey', hex: '#7d8286' },
	E: { colour: 'yellow', hex: '#e3b505' },
	K: { colour: 'green', hex: '#3c7a3a' },
	SX: { colour: 'violet', hex: '#6d3f96' },
	CO: { colour: 'black', hex: '#1a1a1a' },
	Hg: { colour: 'red and white', hex: '#b3261e' },
	NO: { colour: 'blue and white', hex: '#2a5ca8' },
	P: { colour: 'white', hex: '#ffffff' }
};

/** What each US designation protects against and its colour. Published: 42 CFR 84, ANSI/ISEA Z88.7; from memory. */
export const US_BANDS: Record<UsGasType | 'P', { name: string; colour: string; hex: string }> = {
	OV: { name: 'organic vapour', colour: 'black', hex: '#1a1a1a' },
	AG: { name: 'acid gas', colour: 'white', hex: '#ffffff' },
	AM: { name: 'ammonia or methylamine', colour: 'green', hex: '#3c7a3a' },
	FM: { name: 'formaldehyde', colour: 'as its label says', hex: '#b9b6a8' },
	HS: { name: 'hydrogen sulphide', colour: 'as its label says', hex: '#b9b6a8' },
	HF: { name: 'hydrogen fluoride', colour: 'as its label says', hex: '#b9b6a8' },
	MV: { name: 'mercury vapour', colour: 'as its label says', hex: '#b9b6a8' },
	CO: { name: 'carbon monoxide', colour: 'blue', hex: '#2a5ca8' },
	P: { name: 'particles', colour: 'magenta', hex: '#a3287d' }
};

/** Lowest gas class that may be used at a concentration; undefined above class 3. */
export function classFor(concentrationPpm: number): GasClass | undefined {
	return ([1, 2, 3] as const).find((gasClass) => concentrationPpm <= CLASS_LIMIT_PPM[gasClass]);
}

/** Writes an EN code, such as A2B2E2K2-P3. */
export function formatEn(code: EnFilterCode): string {
	const gas = EN_GAS_TYPES.filter((type) => code.gas[type])
		.map((type) => (CLASSED.includes(type) ? `${type}${code.gas[type]}` : type))
		.join('');
	return [gas, code.particle].filter(Boolean).join('-');
}

/** Writes a US code, such as OV/AG-P100. */
export function formatUs(code: UsFilterCode): string {
	return [code.gas.join('/'), code.particle].filter(Boolean).join('-');
}

/** Reads an EN code. Undefined when it is not one. AX, SX, Hg, NO and CO carry no class. */
export function parseEn(text: string): EnFilterCode | undefined {
	const match = /^((?:AX|SX|Hg|NO|CO|[ABEK][123])*)-?(P[123])?$/.exec(text.trim());
	if (!match || (!match[1] && !match[2])) return undefined;
	const gas: EnFilterCode['gas'] = {};
	for (const [, type, gasClass] of (match[1] ?? '').matchAll(/(AX|SX|Hg|NO|CO|[ABEK])([123])?/g))
		gas[type as EnGasType] = (gasClass ? Number(gasClass) : 1) as GasClass;
	return { gas, ...(match[2] ? { particle: match[2] as ParticleClass } : {}) };
}

/** Reads a US code. Undefined when it is not one. */
export function parseUs(text: string): UsFilterCode | undefined {
	const match =
		/^((?:OV|AG|AM|FM|HS|HF|MV|CO)(?:\/(?:OV|AG|AM|FM|HS|HF|MV|CO))*)?-?((?:[NRP](?:95|99|100)))?$/.exec(
			text.trim()
		);
	if (!match || (!match[1] && !match[2])) return undefined;
	const gas = (match[1]?.split('/') ?? []) as UsGasType[];
	return { gas, ...(match[2] ? { particle: match[2] as UsParticleClass } : {}) };
}
