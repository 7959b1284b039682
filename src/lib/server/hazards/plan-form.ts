import { z } from 'zod';
import { BIOLOGICAL_TASKS, CONTAMINANT_FORMS } from '../../../core/data/substance.ts';
import { CONCENTRATION_UNITS } from '../../../core/units/concentration.ts';

const amount = z.object({
	value: z.number('Type a number.').nonnegative('It cannot be below zero.'),
	unit: z.enum(CONCENTRATION_UNITS)
});

/** The facts of a hazard plan as the page sends them. */
export const factsSchema = z.object({
	ruleSet: z.enum(['us', 'uk']),
	contaminants: z
		.array(
			z.object({
				substance: z.string().max(60).optional(),
				name: z.string().trim().min(1, 'Name the contaminant.').max(80),
				form: z.enum(CONTAMINANT_FORMS),
				molarMassGPerMol: z.number().positive().max(2000).optional(),
				boilingPointC: z.number().min(-273).max(3000).optional(),
				idlhPpm: z.number().positive().optional(),
				warning: z.enum(['adequate', 'poor', 'none']).optional(),
				concentration: amount.nullable(),
				measurements: z
					.object({
						values: z
							.array(z.number('A measurement is a number.').nonnegative('It cannot be below zero.'))
							.max(500, 'At most 500 measurements.'),
						unit: amount.shape.unit
					})
					.nullish(),
				peak: amount.nullish(),
				basis: z.enum(['measured', 'estimated']).optional(),
				measuredOn: z.iso.date().optional(),
				limit: amount.refine((l) => l.value > 0, 'A limit must be above zero.').nullish(),
				limitReason: z.string().trim().max(300, 'At most 300 characters.').optional(),
				biologicalTask: z.enum(BIOLOGICAL_TASKS).optional()
			})
		)
		.max(30, 'A plan holds at most 30 contaminants.'),
	oxygenPercent: z.number().nullable(),
	mixture: z.enum(['all', 'by organ']).optional(),
	oxygenStaysInRange: z.boolean(),
	lelReadingPercent: z.number().min(0, 'It cannot be below zero.').max(1000).nullish(),
	altitudeFt: z.number().min(-1500).max(30_000),
	confinedSpace: z.boolean(),
	fire: z.boolean(),
	emergency: z.enum(['none', 'entry', 'escape']),
	fitTest: z.enum(['quantitative', 'qualitative', 'none']),
	facialHair: z.boolean(),
	oilAerosol: z.boolean(),
	temperatureC: z
		.number('Type the temperature in °C.')
		.min(-40, 'Below −40 °C the model does not hold.')
		.max(80, 'Above 80 °C the model does not hold.'),
	relativeHumidityPercent: z
		.number('Type the relative humidity.')
		.min(0, 'Humidity lies between 0 and 100 %.')
		.max(100, 'Humidity lies between 0 and 100 %.'),
	workRate: z.enum(['rest', 'light', 'moderate', 'hard', 'heavy']),
	exposureMin: z
		.number('Type the minutes of exposure.')
		.int('Whole minutes.')
		.min(1, 'At least one minute.')
		.max(1440, 'A day has 1440 minutes.'),
	longShiftHours: z.number().min(8, 'Eight hours or more.').max(23, 'Under 24 hours.').nullish(),
	wantedLifeMin: z.number().min(1).max(1440).nullish()
});

export const planSchema = z.object({
	requestId: z.uuid('The page sent no id; load it again.'),
	task: z.string().trim().min(1, 'Name the task.').max(120, 'At most 120 characters.'),
	placeId: z.uuid('Choose the place.'),
	facts: factsSchema,
	version: z.number().int().min(0),
	copiedFrom: z.uuid().nullish()
});
