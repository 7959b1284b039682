import { z } from 'zod';
import { findSubstance } from '../data/substances.ts';
import { fixedTimes, trapOf } from '../filters/fixed-times.ts';
import { adsorbateOf, bedOf, serviceLife } from '../filters/service-life.ts';
import { checkDay } from '../plan/calendar.ts';
import { judgeDue } from '../plan/due.ts';
import { didYouMean } from '../substances/nearest.ts';
import { inBothUnits } from '../units/concentration.ts';
import { InputError } from '../verdict.ts';
import { AIR_OPERATIONS } from './air-operations.ts';
import { BENCH_OPERATIONS } from './bench-operations.ts';
import { beyondMeasure, faultOf } from './fault.ts';
import { FIT_OPERATIONS } from './fit-operations.ts';
import { HANDOUT_OPERATIONS } from './handout-operations.ts';
import { hazardOperation } from './hazard-operation.ts';
import {
	listOf,
	MOST,
	operation,
	reason,
	unit,
	words,
	type CalcError,
	type Operation
} from './operation.ts';
import { PLAN_OPERATIONS } from './plan-operations.ts';
import { RECORD_OPERATIONS } from './record-operations.ts';
import { calcReasons } from './reasons.ts';

const positive = z.number().positive();
const day = words;

const concentration = operation({
	name: 'concentration',
	description: 'Converts a concentration between ppm and mg/m³ at a temperature and pressure.',
	input: z.strictObject({
		value: z.number(),
		unit,
		molarMassGPerMol: z.number(),
		temperatureC: z.number().optional(),
		pressureKpa: z.number().optional()
	}),
	output: z.object({ ppm: z.number(), mgPerM3: z.number() }),
	run: ({ value, unit: given, molarMassGPerMol, temperatureC, pressureKpa }) =>
		inBothUnits({ value, unit: given }, molarMassGPerMol, {
			...(temperatureC === undefined ? {} : { temperatureC }),
			...(pressureKpa === undefined ? {} : { pressureKpa })
		})
});

const adsorbate = z.strictObject({
	molarMassGPerMol: positive,
	liquidDensityGPerCm3: positive,
	refractiveIndex: z.number().gt(1),
	vapourPressureMmHg: positive
});

const serviceLifeOperation = operation({
	name: 'service-life',
	description:
		'Estimated service life of organic vapour filters (Wheeler-Jonas), with the recommended change time.',
	input: z
		.strictObject({
			substance: words.min(1).optional(),
			...adsorbate.partial().shape,
			concentrationPpm: positive,
			flowLPerMin: positive,
			filters: z.number().int().min(1).max(2).optional(),
			temperatureC: z.number().optional(),
			relativeHumidityPercent: z.number().min(0).max(100).optional(),
			breakthroughFraction: z.number().gt(0).lt(1).optional(),
			bed: z
				.strictObject({
					carbonMassG: positive,
					microporeVolumeCm3PerG: positive,
					packedDensityGPerCm3: positive,
					faceAreaCm2: positive
				})
				.partial()
				.optional()
		})
		.superRefine((v, context) => {
			if (v.substance !== undefined) return;
			for (const key of Object.keys(adsorbate.shape) as (keyof typeof adsorbate.shape)[])
				if (v[key] === undefined)
					context.addIssue({
						code: 'custom',
						path: [key],
						message: `${key} is missing: give it, or a substance of the library.`
					});
		}),
	output: z.object({
		breakthroughMin: z.number(),
		capacityGPerG: z.number(),
		rateConstantPerMin: z.number(),
		recommendedMin: z.number(),
		lowerBoundMin: z.number(),
		outcome: z.enum(['estimate', 'not with this filter']),
		reasons: z.array(reason)
	}),
	run(input) {
		const temperatureC = input.temperatureC ?? 20;
		const substance = input.substance === undefined ? undefined : findSubstance(input.substance);
		if (input.substance !== undefined && !substance)
			throw new InputError(
				'substance',
				`No substance "${input.substance}" in the library.${didYouMean(input.substance)}`
			);
		const given = pick(input);
		const life = serviceLife({
			adsorbate: substance
				? adsorbateOf(substance, temperatureC)
				: { ...adsorbate.parse(given), saturationMmHg: given.vapourPressureMmHg ?? NaN },
			concentrationPpm: input.concentrationPpm,
			flowLPerMin: input.flowLPerMin,
			filters: input.filters ?? 2,
			temperatureC,
			relativeHumidityPercent: input.relativeHumidityPercent ?? 50,
			breakthroughFraction: input.breakthroughFraction ?? 0.1,
			bed: bedOf(input.bed),
			...trapOf(substance),
			fixed: substance ? fixedTimes(substance, input.concentrationPpm) : []
		});
		return {
			breakthroughMin: life.breakthroughMin,
			capacityGPerG: life.capacityGPerG,
			rateConstantPerMin: life.rateConstantPerMin,
			recommendedMin: life.recommendedMin,
			lowerBoundMin: life.lowerBoundMin,
			outcome: life.outcome,
			reasons: calcReasons(life.reasons)
		};
	}
});

function pick(v: Partial<z.output<typeof adsorbate>>): Partial<z.output<typeof adsorbate>> {
	const { molarMassGPerMol, liquidDensityGPerCm3, refractiveIndex, vapourPressureMmHg } = v;
	return { molarMassGPerMol, liquidDensityGPerCm3, refractiveIndex, vapourPressureMmHg };
}

const interval = z.union([
	z.strictObject({ months: positive.int().max(MOST.months) }),
	z.strictObject({ days: positive.int().max(MOST.days) }),
	z.strictObject({ uses: positive.int() }),
	z.strictObject({ hours: positive })
]);

const due = operation({
	name: 'due',
	description: 'When something falls due under several rules at once, and whether it may be used.',
	input: z.strictObject({
		rules: listOf(
			z.strictObject({
				every: interval,
				window: z.number().nonnegative().max(MOST.days).optional()
			}),
			MOST.rules
		).min(1),
		last: day,
		usesSince: z.number().nonnegative().optional(),
		hoursSince: z.number().nonnegative().optional(),
		asOf: day
	}),
	output: z.object({
		dueOn: z.string().nullable(),
		state: z.enum(['ready', 'due', 'overdue']),
		reasons: z.array(reason)
	}),
	run(input) {
		if (checkDay(input.last, 'last') > checkDay(input.asOf, 'asOf'))
			throw new InputError(
				'last',
				`It was last done on ${input.last}, after the day of asking, ${input.asOf}.`
			);
		const result = judgeDue({
			rules: input.rules,
			last: input.last,
			asOf: input.asOf,
			usesSince: input.usesSince ?? 0,
			hoursSince: input.hoursSince ?? 0
		});
		return { dueOn: result.dueOn, state: result.state, reasons: calcReasons(result.reasons) };
	}
});

/** Every operation of the calculation interface. */
export const OPERATIONS: readonly Operation[] = [
	concentration,
	hazardOperation,
	serviceLifeOperation,
	due,
	...BENCH_OPERATIONS,
	...AIR_OPERATIONS,
	...FIT_OPERATIONS,
	...HANDOUT_OPERATIONS,
	...PLAN_OPERATIONS,
	...RECORD_OPERATIONS
];

export type CalcResult = { ok: true; value: unknown } | { ok: false; value: CalcError };

/** Runs one operation on unknown input. Never throws on bad input: the fault comes back located. */
export function calculate(name: string, input: unknown): CalcResult {
	const found = OPERATIONS.find((op) => op.name === name);
	if (!found)
		return failure('unknown_operation', [
			{
				path: '',
				message: `No operation "${name}". There are: ${OPERATIONS.map((op) => op.name).join(', ')}.`
			}
		]);
	const parsed = found.input.safeParse(input, { reportInput: true });
	if (!parsed.success)
		return failure(
			'invalid_input',
			parsed.error.issues.map((issue) => ({
				path: pathOf(issue.path),
				message: faultOf(issue)
			}))
		);
	const beyond = beyondMeasure(input);
	if (beyond)
		return failure('invalid_input', [{ path: pathOf(beyond.path), message: beyond.message }]);
	try {
		const answer = found.output.safeParse(found.run(parsed.data));
		if (answer.success) return { ok: true, value: answer.data };
		const what = pathOf(answer.error.issues[0]?.path ?? []);
		return failure('invalid_input', [
			{
				path: '',
				message: `These values together lie beyond what can be computed: ${what} would be no number. Check their units.`
			}
		]);
	} catch (error) {
		if (error instanceof InputError)
			return failure('invalid_input', [{ path: error.path, message: error.message }]);
		throw error;
	}
}

function failure(
	code: CalcError['error']['code'],
	issues: CalcError['error']['issues']
): CalcResult {
	return { ok: false, value: { error: { code, issues } } };
}

/** A Zod path as it is written in code: contaminants[0].limit.value. */
export function pathOf(path: readonly PropertyKey[]): string {
	return path.reduce<string>(
		(text, part) =>
			typeof part === 'number'
				? `${text}[${part}]`
				: text
					? `${text}.${String(part)}`
					: String(part),
		''
	);
}
