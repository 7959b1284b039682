import {
	PARTICLE_CLASSES,
	PROTECTION_KINDS,
	type ParticleClass,
	type ProtectionKind
} from '../data/protection-factors.ts';
import { rulesFor } from '../data/substance-rules.ts';
import { planLife, wornAs } from '../filters/plan-life.ts';
import { WORK_RATES } from '../filters/service-life.ts';
import type { ConcentrationUnit } from '../units/concentration.ts';
import { formatEn, formatUs } from '../filters/filter-code.ts';
import { assignedFactor } from '../protection/factor.ts';
import type { HazardOutcome, PermittedKind, Suit } from './decision.ts';
import { type Contaminant, gasPpm, type HazardFacts } from './facts.ts';
import { filterLimitPpm, neededEn, neededUs, sameFilter } from './filter-needed.ts';
import { leastFactorOf } from './least-factor.ts';
import { TRACE_RATIO } from './traces.ts';
import { harmsEyes, kindConditions, refusedByWarning } from './kind-conditions.ts';

/** What the kinds are measured against. */
export interface Need {
	outcome: HazardOutcome;
	hazardRatio: number | null;
	requiredFactor: number | null;
	/** What a filter has to catch, and how far it has to bring that down beside what passes it. */
	filter: { contaminants: readonly Contaminant[]; ratio: number | null; factor: number | null };
	suit: Suit;
}

export interface KindChoice {
	permitted: PermittedKind[];
	rejected: { kind: string; label: string; reason: string }[];
}

/** Sorts every kind into permitted, lightest burden first, and rejected with the reason. */
export function chooseKinds(
	contaminants: readonly Contaminant[],
	facts: HazardFacts,
	need: Need
): KindChoice {
	const choice: KindChoice = { permitted: [], rejected: [] };
	for (const kind of PROTECTION_KINDS) {
		const result = judgeKind(kind, contaminants, facts, need);
		if (typeof result === 'string')
			choice.rejected.push({ kind: kind.key, label: kind.label, reason: result });
		else choice.permitted.push(result);
	}
	choice.permitted.sort(byBurden);
	return choice;
}

/** The lighter burden first, goggles counted in, then the larger margin. */
export const byBurden = (a: PermittedKind, b: PermittedKind): number =>
	burdenOf(a) - burdenOf(b) || (b.margin ?? b.factor) - (a.margin ?? a.factor);

/** What goggles add to the burden: behind the filtering kinds that cover the eyes. Common practice. */
const GOGGLES_BURDEN = 2.5;
const burdenOf = (kind: PermittedKind): number =>
	kind.burden + (kind.needsGoggles ? GOGGLES_BURDEN : 0);

function judgeKind(
	kind: ProtectionKind,
	all: readonly Contaminant[],
	facts: HazardFacts,
	need: Need
): PermittedKind | string {
	const wrongSource = sourceRefused(kind, need.outcome);
	if (wrongSource) return wrongSource;
	if (
		need.suit === 'gas-tight' &&
		!(kind.tightFitting && kind.coversEyes && !kind.negativePressure)
	)
		return 'A gas-tight suit is worn with a full-face mask that its own air keeps under pressure.';
	const filters = kind.source === 'filter';
	const contaminants = filters ? need.filter.contaminants : all;
	const required = filters ? need.filter.factor : need.requiredFactor;
	if (filters && contaminants.length === 0) return 'There is nothing here that a filter catches.';
	const gas = contaminants.some((c) => c.gas);
	if (kind.catches === 'particles' && gas) return 'It catches particles only.';
	if (kind.tightFitting) {
		if (facts.facialHair) return 'Facial hair at the seal: only loose-fitting equipment.';
		if (facts.fitTest === 'none')
			return 'No fit test: only loose-fitting equipment until one is passed.';
	}
	const particleClass = smallestClass(kind, contaminants, facts, required);
	const factor = factorOf(kind, contaminants, facts, particleClass);
	if (factor === undefined)
		return facts.fitTest === 'qualitative' && kind.key === 'full-face'
			? 'A qualitative fit test is not accepted for a full-face mask.'
			: 'The rule set gives it no factor for this.';
	if (required !== null && factor < required)
		return `Its factor of ${factor} lies below the ${required} needed.`;
	const ruled = refusedByRule(kind, all, facts, factor);
	if (ruled) return ruled;
	const code = filters ? codes(kind, contaminants, facts, required) : undefined;
	if (code) {
		const over =
			aboveFilterLimit(contaminants, facts.ruleSet) ??
			refusedByWarning(kind, contaminants, facts.ruleSet);
		if (over) return over;
		if (!code[facts.ruleSet === 'us' ? 'us' : 'en'])
			return `No filter of the ${facts.ruleSet === 'us' ? '42 CFR 84' : 'EN 14387'} scheme catches all of these.`;
		const spent = spentAtOnce(kind, contaminants, facts);
		if (spent) return spent;
	}
	const needsGoggles = !kind.coversEyes && all.some(harmsEyes);
	return {
		kind: kind.key,
		label: kind.label,
		source: kind.source,
		tightFitting: kind.tightFitting,
		factor,
		margin: need.hazardRatio ? factor / need.hazardRatio : null,
		maxUseMultiple: maxUseMultiple(kind, all, facts, factor, need),
		burden: kind.burden,
		needsGoggles,
		...(code ? { filters: code } : {}),
		conditions: kindConditions(kind, all, facts, needsGoggles)
	};
}

/** Why a filter is not offered that the life model or a fixed time spends before anything can be done with it. */
function spentAtOnce(
	kind: ProtectionKind,
	contaminants: readonly Contaminant[],
	facts: HazardFacts
): string | undefined {
	const life = planLife(contaminants, facts, wornAs(kind));
	const spent = life.parts.find(
		(part, i) =>
			part.minutes !== null &&
			part.minutes <= 0 &&
			(contaminants[i]?.ratio ?? Infinity) > TRACE_RATIO
	);
	return spent && `${spent.contaminant}: ${spent.reasons[0]?.text ?? 'not with this filter.'}`;
}

/** Why a filter may not be worn in what is there: each by itself, or all that one type has to hold together. */
function aboveFilterLimit(
	contaminants: readonly Contaminant[],
	ruleSet: HazardFacts['ruleSet']
): string | undefined {
	for (const c of contaminants) {
		const most = filterLimitPpm(c, ruleSet);
		const alike = contaminants.filter((other) => other.gas && sameFilter(c, other, ruleSet));
		if (!c.gas || gasPpm(alike) <= most) continue;
		return alike.length > 1
			? `${alike.map(({ name }) => name).join(' and ')} together lie above the ${most} ppm that their filter may be worn in.`
			: `${c.name} lies above the ${most} ppm that its filter may be worn in.`;
	}
	return undefined;
}

function sourceRefused(kind: ProtectionKind, outcome: HazardOutcome): string | undefined {
	if (outcome === 'filter') return undefined;
	if (outcome === 'stop') return 'Nobody goes in.';
	if (outcome === 'escape set') return 'For leaving only, an escape set is carried.';
	if (kind.source === 'filter') return 'A filter is not accepted here.';
	if (outcome === 'supplied air') return undefined;
	if (kind.source !== 'self-contained') return 'Its air ends when the line does: no escape supply.';
	return kind.positivePressure ? undefined : 'A demand device draws outside air in at a leak.';
}

/** Why a rule of one of the substances refuses a kind that the factor would allow. */
function refusedByRule(
	kind: ProtectionKind,
	contaminants: readonly Contaminant[],
	facts: HazardFacts,
	factor: number
): string | undefined {
	for (const c of contaminants)
		for (const rule of rulesFor(c.substance?.key, facts.ruleSet)) {
			if (rule.refused?.kinds.includes(kind.key)) return rule.refused.because;
			if (rule.minimumFactor && factor < rule.minimumFactor)
				return `${c.name}: its own rule asks for a factor of ${rule.minimumFactor}, this has ${factor}.`;
		}
	return undefined;
}

function factorOf(
	kind: ProtectionKind,
	contaminants: readonly Contaminant[],
	facts: HazardFacts,
	particleClass: ParticleClass
): number | undefined {
	return assignedFactor(kind, facts.ruleSet, {
		gas: contaminants.some((c) => c.gas),
		particles: contaminants.some((c) => c.particle),
		particleClass,
		fitTest: facts.fitTest
	});
}

/** The lowest particle class whose factor is enough, P3 when none is. */
function smallestClass(
	kind: ProtectionKind,
	contaminants: readonly Contaminant[],
	facts: HazardFacts,
	required: number | null
): ParticleClass {
	const rules = contaminants.flatMap((c) => rulesFor(c.substance?.key, facts.ruleSet));
	if (rules.some((rule) => rule.particle)) return 'P3';
	const least = Math.max(required ?? Infinity, ...rules.map((rule) => rule.minimumFactor ?? 0));
	return (
		PARTICLE_CLASSES.find((c) => (factorOf(kind, contaminants, facts, c) ?? 0) >= least) ?? 'P3'
	);
}

/** MUC over limit: the factor, capped by immediate danger and by the filter. 29 CFR 1910.134(d)(3)(i)(B). */
function maxUseMultiple(
	kind: ProtectionKind,
	contaminants: readonly Contaminant[],
	facts: HazardFacts,
	factor: number,
	need: Need
): number {
	const caps = contaminants.flatMap((c) => {
		if (!c.limit || !c.ratio || kind.source === 'self-contained') return [];
		const inLimits = (cap: number, unit: ConcentrationUnit, ratioAtCap: number) =>
			unit === c.limit?.unit ? cap / c.limit.value : ratioAtCap;
		const danger =
			c.idlh && c.idlhRatio ? [inLimits(c.idlh.value, c.idlh.unit, c.ratio / c.idlhRatio)] : [];
		const most = filterLimitPpm(c, facts.ruleSet);
		const filter =
			kind.source === 'filter' && c.peakPpm
				? [inLimits(most, 'ppm', (most / c.peakPpm) * c.ratio)]
				: [];
		return [...danger, ...filter];
	});
	// What passes the filter grows with the rest and is not brought down.
	const ratio = need.hazardRatio;
	const passed = kind.source === 'filter' ? passedShare(contaminants, need.filter.contaminants) : 0;
	const beside = ratio && passed ? [ratio / (passed + (ratio - passed) / factor)] : [];
	return Math.min(factor, ...caps, ...beside);
}

/** Σ of the ratios of what passes a filter. */
const passedShare = (all: readonly Contaminant[], caught: readonly Contaminant[]): number =>
	all.filter((c) => !caught.includes(c)).reduce((sum, c) => sum + (c.ratio ?? 0), 0);

function codes(
	kind: ProtectionKind,
	contaminants: readonly Contaminant[],
	facts: HazardFacts,
	required: number | null
): { en: string | null; us: string | null } {
	// The class is one of the EN scheme: beside the US answer it stands as the UK table asks for it.
	const uk = { ...facts, ruleSet: 'uk' as const };
	const least = contaminants.map((c) => leastFactorOf(c, 'uk')?.factor ?? 0);
	const enClass = smallestClass(
		kind,
		contaminants,
		uk,
		required === null && Math.max(0, ...least) === 0 ? null : Math.max(required ?? 0, ...least)
	);
	// Published: EN 12941/12942 and 42 CFR 84, powered devices take the highest particle class; from memory.
	const powered = kind.key.startsWith('powered');
	const rules = contaminants.flatMap((c) => rulesFor(c.substance?.key, facts.ruleSet));
	const highest = powered || rules.some((rule) => rule.particle);
	const filters = kind.filters ?? 1;
	const wanted = {
		minutes: facts.wantedLifeMin ?? null,
		flowLPerMin: kind.blowerLPerMin ?? WORK_RATES[facts.workRate],
		filters
	};
	const en = neededEn(contaminants, highest ? 'P3' : enClass, wanted);
	const us = neededUs(contaminants, facts.oilAerosol);
	if (us?.particle && highest) us.particle = 'P100';
	const disposable = kind.key === 'filtering-facepiece';
	return {
		en: en && (disposable ? `FF${en.particle ?? enClass}` : formatEn(en)),
		us: us && formatUs(us)
	};
}
