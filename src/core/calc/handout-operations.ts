import { z } from 'zod';
import { doseOf, DOSE_PPM, doseReasons, stockFor } from '../care/dilution.ts';
import { BATH_AGENTS, DRYING, judgeWash } from '../care/wash-check.ts';
import { judgeHandOut } from '../handout/gate.ts';
import { kitOut } from '../handout/kit-out.ts';
import { FACE_CHANGES, FIT_METHODS } from '../people/fit-standing.ts';
import { listOf, MOST, operation, reason, ruleSet, words } from './operation.ts';
import { calcReasons } from './reasons.ts';

const positive = z.number().positive();
const day = z.iso.date('A day as YYYY-MM-DD.').max(10);

const dilution = operation({
	name: 'dilution',
	description: 'Stock for a bath by its target dose, or what so much stock really gives.',
	input: z.strictObject({
		stockPercent: positive,
		targetPpm: positive.default(DOSE_PPM),
		volumeL: positive,
		stockMl: z.number().nonnegative().optional()
	}),
	output: z.object({
		stockMl: z.number(),
		resultPpm: z.number(),
		reasons: z.array(reason)
	}),
	run({ stockPercent, targetPpm, volumeL, stockMl: given }) {
		const bath = { stockPercent, volumeL };
		const stockMl = given ?? stockFor(bath, targetPpm);
		const resultPpm = doseOf(bath, stockMl);
		return { stockMl, resultPpm, reasons: calcReasons(doseReasons(resultPpm, targetPpm)) };
	}
});

const washCheck = operation({
	name: 'wash-check',
	description: 'Judges how a batch was washed, disinfected, rinsed and dried.',
	input: z.strictObject({
		temperatureC: z.number(),
		temperatureLimitC: z.number().optional(),
		agent: z.enum(BATH_AGENTS),
		dosePpm: z.number().nonnegative().optional(),
		contactMin: z.number().nonnegative(),
		rinsed: z.boolean(),
		driedBy: z.enum(DRYING),
		cabinetC: z.number().optional(),
		cabinetLimitC: z.number().optional()
	}),
	output: z.object({ outcome: z.enum(['pass', 'fail']), reasons: z.array(reason) }),
	run(wash) {
		const { outcome, reasons } = judgeWash(wash);
		return { outcome, reasons: calcReasons(reasons) };
	}
});

const fit = { model: words, size: words };
const STATES = [
	'ready',
	'due',
	'overdue',
	'held',
	'in wash',
	'in service',
	'issued',
	'retired'
] as const;

const handOut = operation({
	name: 'hand-out',
	description:
		'Whether something may be handed out to somebody for a task today, with every reason and its fix.',
	input: z.strictObject({
		item: z.strictObject({
			kind: words,
			...fit,
			state: z.enum(STATES),
			complete: z.boolean(),
			inspectedOn: day.nullish(),
			minutesOfAir: z.number().nonnegative().nullish(),
			filter: z
				.strictObject({
					code: words,
					hoursLeft: z.number(),
					sameTypeAndClass: z.boolean(),
					sameOpening: z.boolean()
				})
				.nullish()
		}),
		wearer: z.strictObject({
			fitTests: listOf(
				z.strictObject({ ...fit, on: day, method: z.enum(FIT_METHODS), passed: z.boolean() }),
				MOST.rules
			),
			changes: listOf(z.strictObject({ what: z.enum(FACE_CHANGES), on: day }), MOST.rules),
			facialHair: z.boolean(),
			clearedUntil: day.nullish(),
			trainedUntil: day.nullish()
		}),
		task: z.strictObject({
			kinds: listOf(z.strictObject({ kind: words, filter: words.optional() }), MOST.vessels),
			requiredFactor: z.number().nonnegative(),
			hours: z.number().nonnegative(),
			minutesOfAir: z.number().nonnegative().nullish(),
			approved: z.boolean(),
			expiresOn: day,
			inQuestion: z.boolean()
		}),
		ruleSet,
		asOf: day
	}),
	output: z.object({
		outcome: z.enum(['hand out', 'with conditions', 'do not']),
		reasons: z.array(reason.extend({ fix: z.string() }))
	}),
	run({ item, wearer, task, ruleSet: pack, asOf }) {
		const { outcome, reasons } = judgeHandOut(
			{
				...item,
				inspectedOn: item.inspectedOn ?? null,
				minutesOfAir: item.minutesOfAir ?? null,
				filter: item.filter ?? null
			},
			{
				...wearer,
				clearedUntil: wearer.clearedUntil ?? null,
				trainedUntil: wearer.trainedUntil ?? null
			},
			{ ...task, minutesOfAir: task.minutesOfAir ?? null },
			pack,
			asOf
		);
		const said = calcReasons(reasons);
		return {
			outcome,
			reasons: said.map((one, i) => ({ ...one, fix: reasons[i]?.fix ?? '' }))
		};
	}
});

const kitOutOperation = operation({
	name: 'kit-out',
	description: 'Who of a team gets which set, so that as many are served as can be.',
	input: z.strictObject({
		wearers: listOf(
			z.strictObject({ id: words, fits: listOf(z.strictObject(fit), MOST.rules) }),
			MOST.team
		),
		sets: listOf(
			z.strictObject({
				tag: words,
				...fit,
				minutesOfAir: z.number().nonnegative().optional(),
				personalOf: words.optional()
			}),
			MOST.sets
		),
		minutesOfAir: z.number().nonnegative().optional()
	}),
	output: z.object({
		assignment: z.record(z.string(), z.string()),
		unserved: z.array(z.object({ wearer: z.string(), reason: z.string() })),
		reasons: z.array(reason)
	}),
	run({ wearers, sets, minutesOfAir }) {
		const { assignment, unserved, reasons } = kitOut(wearers, sets, minutesOfAir);
		return { assignment, unserved, reasons: calcReasons(reasons) };
	}
});

export const HANDOUT_OPERATIONS = [dilution, washCheck, handOut, kitOutOperation];
