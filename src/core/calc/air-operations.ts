import { z } from 'zod';
import { airState, FREE_AIR_C } from '../air/air-state.ts';
import { cascadeFill } from '../air/cascade.ts';
import { cylinderContent, cylinderDuration } from '../air/content.ts';
import { moisture } from '../air/moisture.ts';
import { setWeight } from '../air/set-weight.ts';
import { settledPressureBar } from '../air/settle.ts';
import { turnBack } from '../air/turn-back.ts';
import { judgeHose } from '../airline/hose.ts';
import { InputError } from '../verdict.ts';
import { listOf, MOST, operation, reason } from './operation.ts';
import { calcReasons } from './reasons.ts';

const number = z.number();
const maybe = z.number().optional();
const vessel = z.strictObject({ waterVolumeL: number, pressureBar: number });
const verdict = { outcome: z.enum(['pass', 'fail']), reasons: z.array(reason) };

const state = operation({
	name: 'air-state',
	description: 'Compressibility factor and density of air behind a gauge.',
	input: z.strictObject({ pressureBar: number, temperatureC: number, ambientBar: maybe }),
	output: z.object({ z: number, densityMolPerL: number }),
	run: airState
});

const content = operation({
	name: 'cylinder-content',
	description: 'Free litres that a cylinder gives between two pressures, and what p·V would say.',
	input: z.strictObject({
		waterVolumeL: number,
		count: maybe,
		fromBar: number,
		toBar: maybe,
		temperatureC: maybe,
		ambientBar: maybe
	}),
	output: z.object({ freeLitres: number, idealLitres: number }),
	run: cylinderContent
});

const duration = operation({
	name: 'cylinder-duration',
	description: 'Minutes to the warning, of the reserve and in all at a consumption.',
	input: z.strictObject({
		waterVolumeL: number,
		count: maybe,
		startBar: number,
		warningBar: maybe,
		consumptionLPerMin: maybe,
		temperatureC: maybe,
		ambientBar: maybe
	}),
	output: z.object({ minutesToWarning: number, minutesReserve: number, minutesTotal: number }),
	run: cylinderDuration
});

const settled = operation({
	name: 'settled-pressure',
	description: 'Pressure of a closed cylinder at another temperature.',
	input: z.strictObject({ pressureBar: number, temperatureC: number, finalTemperatureC: number }),
	output: z.object({ pressureBar: number }),
	run: ({ finalTemperatureC, ...from }) => ({
		pressureBar: settledPressureBar(from, finalTemperatureC)
	})
});

const cascade = operation({
	name: 'cascade-fill',
	description: 'Fills cylinders from banks, the lowest first, by moles at constant temperature.',
	input: z.strictObject({
		banks: listOf(vessel, MOST.vessels),
		cylinder: vessel,
		fills: maybe,
		temperatureC: maybe
	}),
	output: z.object({
		fills: z.array(z.object({ finalBar: number, banksBar: z.array(number) }))
	}),
	run: (input) => ({ fills: cascadeFill(input) })
});

const weight = operation({
	name: 'set-weight',
	description: 'Weight of a set with its cylinders full, against the limit.',
	input: z.strictObject({
		partsKg: listOf(number, MOST.parts),
		cylinders: listOf(
			z.strictObject({ emptyKg: number, waterVolumeL: number, pressureBar: number }),
			MOST.vessels
		)
	}),
	output: z.object({ totalKg: number, ...verdict }),
	run({ partsKg, cylinders }) {
		if (partsKg.length + cylinders.length === 0)
			throw new InputError('partsKg', 'Nothing to weigh: give parts or cylinders.');
		const result = setWeight(partsKg, cylinders);
		return { ...result, reasons: calcReasons(result.reasons) };
	}
});

const turn = operation({
	name: 'turn-back',
	description:
		'Pressure at which each wearer turns back when the way out is as long as the way in, and the one that governs the team.',
	input: z.strictObject({
		startBar: listOf(number, MOST.vessels),
		warningBar: maybe,
		marginBar: maybe
	}),
	output: z.object({ turnAtBar: number, eachBar: z.array(number) }),
	run: ({ startBar, warningBar, marginBar }) => turnBack(startBar, warningBar, marginBar)
});

const dewPoint = operation({
	name: 'dew-point',
	description: 'Water in compressed air: content, dew point at pressure and at one atmosphere.',
	input: z
		.strictObject({ mgPerM3: maybe, dewPointC: maybe, pressureBar: number })
		.refine((v) => (v.mgPerM3 === undefined) !== (v.dewPointC === undefined), {
			path: ['mgPerM3'],
			message: 'Give either mgPerM3 or dewPointC (at the pressure).'
		}),
	output: z.object({ mgPerM3: number, dewPointC: number, dewPointAtmosphereC: number }),
	run({ mgPerM3, dewPointC, pressureBar }) {
		const given = dewPointC === undefined ? { mgPerM3: mgPerM3 ?? 0 } : { dewPointC };
		const found = moisture(given, pressureBar);
		return {
			mgPerM3: found.mgPerM3,
			dewPointC: found.atPressureC,
			dewPointAtmosphereC: found.atAtmosphereC
		};
	}
});

const hose = operation({
	name: 'hose',
	description: 'Pressure at the end of an airline hose, judged against the limits of the approval.',
	input: z.strictObject({
		supplyBar: number,
		boreMm: number,
		lengthM: number,
		flowLPerMin: number,
		temperatureC: number.default(FREE_AIR_C),
		roughnessMm: maybe,
		fittingsEquivalentM: maybe,
		wears: z.enum(['tight-fitting', 'hood']).optional(),
		bandBar: z.tuple([number, number]).optional()
	}),
	output: z.object({
		outletBar: number,
		reynolds: number,
		frictionFactor: number,
		...verdict
	}),
	run({ wears, bandBar, ...input }) {
		if (bandBar && !(bandBar[0] >= 0 && bandBar[0] < bandBar[1] && bandBar[1] <= 20))
			throw new InputError(
				'bandBar',
				'A band runs from a lower to a higher pressure, 0 to 20 bar.'
			);
		const result = judgeHose({
			...input,
			wearing: wears,
			leastOutletBar: bandBar?.[0],
			mostOutletBar: bandBar?.[1]
		});
		return { ...result, reasons: calcReasons(result.reasons) };
	}
});

/** Operations of air: cylinders, filling, duration, moisture, airlines. */
export const AIR_OPERATIONS = [
	state,
	content,
	duration,
	settled,
	cascade,
	weight,
	turn,
	dewPoint,
	hose
];
