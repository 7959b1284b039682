import { z } from 'zod';
import { BIOLOGICAL_TASKS, CONTAMINANT_FORMS } from '../data/substance.ts';
import { findSubstance } from '../data/substances.ts';
import { DEFAULT_FACTS, type ContaminantFact } from '../hazards/facts.ts';
import { decideWithChanges } from '../hazards/changes.ts';
import { didYouMean } from '../substances/nearest.ts';
import { InputError } from '../verdict.ts';
import { amount, listOf, MOST, operation, reason, ruleSet, words } from './operation.ts';
import { calcReasons } from './reasons.ts';

const described = z.strictObject({
	name: words.min(1),
	form: z.enum(CONTAMINANT_FORMS),
	molarMassGPerMol: z.number().positive().optional(),
	boilingPointC: z.number().min(-273.15).optional(),
	idlhPpm: z.number().positive().optional(),
	lelPercent: z.number().positive().max(100).optional(),
	warning: z.enum(['adequate', 'good', 'poor', 'none']).optional()
});

const contaminant = z.strictObject({
	substance: z.union([words.min(1), described]),
	concentration: amount.nullish(),
	limit: z.strictObject({ value: z.number().positive(), unit: amount.shape.unit }).nullish(),
	/** Why a limit laxer than the published one is kept; without it the published one decides. */
	limitReason: words.optional(),
	biologicalTask: z.enum(BIOLOGICAL_TASKS).optional()
});

/** From a library word or a description to a fact; a plain word must be in the library. */
function factOf(row: z.output<typeof contaminant>, index: number): ContaminantFact {
	const { substance, concentration = null, limit = null, limitReason, biologicalTask } = row;
	const rest = { concentration, limit, limitReason, biologicalTask };
	if (typeof substance !== 'string') {
		const warning = substance.warning === 'good' ? 'adequate' : substance.warning;
		return { ...substance, warning: warning ?? 'poor', ...rest };
	}
	const found = findSubstance(substance);
	if (!found)
		throw new InputError(
			`contaminants[${index}].substance`,
			`No substance "${substance}" in the library.${didYouMean(substance)} Or give it as an object with name, form and molar mass.`
		);
	return { substance: found.key, name: found.name, form: found.form, ...rest };
}

export const hazardOperation = operation({
	name: 'hazard',
	description: 'Climbs the decision ladder: which kinds of protection the facts permit, and why.',
	input: z.strictObject({
		ruleSet,
		contaminants: listOf(contaminant, MOST.contaminants),
		oxygenPercent: z.number().nullish(),
		altitudeFt: z.number().min(-1500).max(30_000).optional(),
		/** The employer has shown it: chooses the altitude exception of 29 CFR 1910.134 table II. */
		oxygenStaysInRange: z.boolean().optional(),
		confinedSpace: z.boolean().optional(),
		lelReadingPercent: z.number().min(0).max(1000).nullish(),
		facialHair: z.boolean().optional(),
		emergency: z.enum(['entry', 'escape']).nullish(),
		fitTest: z.enum(['quantitative', 'qualitative', 'none']).optional(),
		oilAerosol: z.boolean().optional()
	}),
	output: z.object({
		outcome: z.enum(['filter', 'supplied air', 'self-contained', 'escape set', 'stop']),
		requiredFactor: z.number().nullable(),
		hazardRatio: z.number().nullable(),
		permitted: z.array(
			z.object({
				kind: z.string(),
				label: z.string(),
				factor: z.number(),
				maxUseMultiple: z.number(),
				filter: z.string().optional(),
				filters: z.object({ en: z.string().nullable(), us: z.string().nullable() }).optional()
			})
		),
		/** What goes with the answer, such as goggles, an attendant, a suit. */
		conditions: z.array(z.string()),
		/** Kinds that are not permitted, each with why. */
		refused: z.array(z.object({ kind: z.string(), why: z.string() })),
		suit: z.enum(['none', 'skin protection', 'gas-tight']),
		changesIf: z.array(z.string()),
		reasons: z.array(reason)
	}),
	run(input) {
		const decision = decideWithChanges({
			...DEFAULT_FACTS,
			ruleSet: input.ruleSet,
			contaminants: input.contaminants.map(factOf),
			oxygenPercent: input.oxygenPercent,
			oxygenStaysInRange: input.oxygenStaysInRange ?? false,
			confinedSpace: input.confinedSpace ?? false,
			lelReadingPercent: input.lelReadingPercent,
			facialHair: input.facialHair ?? false,
			altitudeFt: input.altitudeFt ?? 0,
			emergency: input.emergency ?? 'none',
			fitTest: input.fitTest ?? 'quantitative',
			oilAerosol: input.oilAerosol ?? false
		});
		return {
			outcome: decision.outcome,
			requiredFactor: decision.requiredFactor,
			hazardRatio: decision.hazardRatio,
			permitted: decision.permitted.map((kind) => {
				const filter = kind.filters?.[input.ruleSet === 'us' ? 'us' : 'en'];
				return {
					kind: kind.kind,
					label: kind.label,
					factor: kind.factor,
					maxUseMultiple: kind.maxUseMultiple,
					...(filter ? { filter } : {}),
					...(kind.filters ? { filters: kind.filters } : {})
				};
			}),
			conditions: [
				...new Set([
					...decision.conditions,
					...decision.permitted.flatMap((kind) => kind.conditions)
				])
			],
			refused: decision.rejected.map(({ kind, reason: why }) => ({ kind, why })),
			suit: decision.suit,
			changesIf: decision.changesIf,
			reasons: calcReasons(decision.reasons)
		};
	}
});
