import { PARTICLE_CLASSES } from '../data/protection-factors.ts';
import { readable } from '../plan/calendar.ts';
import type { RuleSet } from '../data/substance.ts';
import { commonPractice, maker, published, type Reason, type Verdict } from '../verdict.ts';
import {
	EN_GAS_TYPES,
	parseEn,
	parseUs,
	type EnFilterCode,
	type UsFilterCode,
	type UsParticleClass
} from './filter-code.ts';

/** What a model in the filter store is; only a filter is one alone. */
export const FILTER_ROLES = ['filter', 'pre-filter', 'retainer', 'adapter'] as const;
export type FilterRole = (typeof FILTER_ROLES)[number];

/** The roles in a sentence. */
export const ROLE_WORDS: Record<FilterRole, string> = {
	filter: 'a filter',
	'pre-filter': 'a pre-filter',
	retainer: 'a retainer',
	adapter: 'an adapter'
};

/** Whether a model carries the marking of a scheme: a retainer and an adapter catch nothing by themselves. */
export const isMarked = (role: FilterRole): boolean => role === 'filter' || role === 'pre-filter';

/** A lot of sealed filters in the store. */
export interface StockFilter {
	/** Left out: a filter. */
	role?: FilterRole;
	codeEn: string | null;
	codeUs: string | null;
	mount: string;
	massG: number;
	/** YYYY-MM-DD, counts while the pack is sealed. */
	useBy: string;
	sealedQuantity: number;
	recalledAt?: Date | null;
	recallReason?: string | null;
}

/** What a place on an item asks of what comes out of a lot, whatever it catches. */
export interface PlaceNeed {
	/** null: any mask. */
	mount: string | null;
	/** Filters that the mask carries. */
	filters: number;
	/** What the filters hang on; left out: a half mask. */
	carrier?: keyof typeof MOST_FILTER_MASS_G | 'hose' | 'blower' | 'pouch';
	/** Most that they may weigh together by the maker of what they hang on, g; left out: the standard's. */
	mostG?: number | undefined;
}

/** What a plan and a mask ask of a filter. */
export interface FilterNeed extends PlaceNeed {
	ruleSet: RuleSet;
	codeEn: string | null;
	codeUs: string | null;
	oilAerosol: boolean;
}

/** Heaviest set of filters worn on a mask itself, g; heavier goes on a hose. Published: EN 14387; from memory. */
export const MOST_FILTER_MASS_G = { 'half mask': 300, 'full-face mask': 500 } as const;

const PERCENT: Record<UsParticleClass, number> = {
	N95: 95,
	R95: 95,
	P95: 95,
	N99: 99,
	N100: 100,
	P100: 100
};

/**
 * Whether filters from a lot serve a plan on a mask today, with every reason why not.
 * @param asOf YYYY-MM-DD
 */
export function judgeStock(
	filter: StockFilter,
	need: FilterNeed,
	asOf: string
): Verdict<'serves' | 'does not'> {
	const reasons: Reason[] = [];
	if (filter.role && filter.role !== 'filter')
		reasons.push({
			rule: 'stock.no-filter',
			text: `It is ${ROLE_WORDS[filter.role]}: alone it is no filter.`,
			origin: commonPractice()
		});
	else reasons.push(...codeFaults(filter, need));
	reasons.push(...judgePack(filter, need, asOf).reasons);
	return { outcome: reasons.length ? 'does not' : 'serves', reasons };
}

/** Whether what is in a lot may be fitted to a place today, whatever it catches: recalled, mount, date, how many, mass. */
export function judgePack(
	filter: StockFilter,
	need: PlaceNeed,
	asOf: string
): Verdict<'serves' | 'does not'> {
	const reasons: Reason[] = [];
	const refuse = (rule: string, text: string, part: Partial<Reason> = {}) =>
		reasons.push({ rule, text, origin: commonPractice(), ...part });
	if (filter.recalledAt)
		refuse('stock.recalled', `Its lot was recalled: ${filter.recallReason ?? ''}.`);
	if (need.mount !== null && filter.mount !== need.mount)
		refuse('stock.mount', `Its ${filter.mount} mount does not fit this mask (${need.mount}).`);
	if (filter.useBy < asOf)
		refuse('stock.use-by', `Past its use-by date of ${readable(filter.useBy)}.`);
	if (filter.sealedQuantity < need.filters)
		refuse(
			'stock.quantity',
			`${filter.sealedQuantity} sealed left, ${need.filters} are needed for the mask.`,
			{ limit: need.filters, value: filter.sealedQuantity }
		);
	const mass = filter.massG * need.filters;
	const carrier = need.carrier ?? 'half mask';
	// What hangs on a hose or sits on a belt does not pull at the face.
	const standard =
		carrier in MOST_FILTER_MASS_G ? MOST_FILTER_MASS_G[carrier as 'half mask'] : Infinity;
	const own = need.mostG ?? Infinity;
	const most = Math.min(standard, own);
	if (mass > most)
		refuse('stock.mass', `${mass} g on a ${carrier}, ${most} g at most; heavier hangs on a hose.`, {
			origin:
				own < standard
					? maker('most that the filters on this model weigh')
					: published(`EN 14387, mass of filters on a ${carrier}`),
			limit: most,
			value: mass,
			unit: 'g',
			margin: most - mass
		});
	return { outcome: reasons.length ? 'does not' : 'serves', reasons };
}

function codeFaults(
	filter: Pick<StockFilter, 'codeEn' | 'codeUs'>,
	need: Pick<FilterNeed, 'ruleSet' | 'codeEn' | 'codeUs' | 'oilAerosol'>
): Reason[] {
	const origin = need.ruleSet === 'uk' ? published('EN 14387, EN 143') : published('42 CFR 84');
	const fault = (rule: string, text: string): Reason => ({ rule, text, origin });
	if (need.ruleSet === 'uk') {
		const wanted = need.codeEn ? parseEn(need.codeEn) : undefined;
		const held = filter.codeEn ? parseEn(filter.codeEn) : undefined;
		if (!wanted)
			return [fault('stock.no-code', 'The plan names no filter code under this scheme.')];
		if (!held) return [fault('stock.unmarked', 'It carries no EN marking.')];
		return enFaults(held, wanted).map((text) => fault('stock.type', text));
	}
	const wanted = need.codeUs ? parseUs(need.codeUs) : undefined;
	const held = filter.codeUs ? parseUs(filter.codeUs) : undefined;
	if (!wanted) return [fault('stock.no-code', 'The plan names no filter code under this scheme.')];
	if (!held) return [fault('stock.unmarked', 'It carries no US approval.')];
	return usFaults(held, wanted, need.oilAerosol).map((text) => fault('stock.type', text));
}

function enFaults(held: EnFilterCode, wanted: EnFilterCode): string[] {
	const faults: string[] = [];
	for (const type of EN_GAS_TYPES) {
		const [need, has] = [wanted.gas[type], held.gas[type]];
		if (!need) continue;
		if (!has) faults.push(`It does not catch type ${type}.`);
		else if (has < need) faults.push(`Class ${type}${has}, ${type}${need} is needed.`);
	}
	if (wanted.particle) {
		if (!held.particle) faults.push(`No particle filter, ${wanted.particle} is needed.`);
		else if (PARTICLE_CLASSES.indexOf(held.particle) < PARTICLE_CLASSES.indexOf(wanted.particle))
			faults.push(`Particle class ${held.particle}, ${wanted.particle} is needed.`);
	}
	return faults;
}

function usFaults(held: UsFilterCode, wanted: UsFilterCode, oil: boolean): string[] {
	const faults = wanted.gas
		.filter((type) => !held.gas.includes(type))
		.map((type) => `It is not approved for ${type}.`);
	if (wanted.particle) {
		if (!held.particle) faults.push(`No particle filter, ${wanted.particle} is needed.`);
		else {
			if (PERCENT[held.particle] < PERCENT[wanted.particle])
				faults.push(`Particle filter ${held.particle}, ${wanted.particle} is needed.`);
			if (held.particle.startsWith('N') && (oil || wanted.particle.startsWith('P')))
				faults.push(`${held.particle} is not for oil aerosol.`);
		}
	}
	return faults;
}

/**
 * Why a filter of one marking does not do for another that is asked for, as sentences; none where it does.
 * @param oilAerosol oil mist is in the air, of the US scheme
 */
export function codeServes(
	held: string,
	wanted: string,
	ruleSet: RuleSet,
	oilAerosol = false
): string[] {
	const need = { ruleSet, codeEn: wanted, codeUs: wanted, oilAerosol };
	return codeFaults({ codeEn: held, codeUs: held }, need).map(({ text }) => text);
}

/** How much more a filter catches than asked: the least that serves is offered first. */
export function surplus(filter: StockFilter, ruleSet: RuleSet): number {
	if (ruleSet === 'us') {
		const code = filter.codeUs ? parseUs(filter.codeUs) : undefined;
		return (code?.gas.length ?? 9) * 2 + (code?.particle ? 1 : 0);
	}
	const code = filter.codeEn ? parseEn(filter.codeEn) : undefined;
	const gas = Object.values(code?.gas ?? { A: 3 as const });
	return gas.reduce((sum, c) => sum + 1 + c, 0) + (code?.particle ? 1 : 0);
}
