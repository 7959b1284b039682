import { z } from 'zod';
import { limitOf } from '../../core/data/substance-table.ts';
import { ORGANS } from '../../core/substances/csv.ts';
import { Fault } from './errors.ts';
import type { SubstanceEdit } from './substances.ts';

const decimal = (text: string) => Number(text.trim().replace(',', '.'));
const optionalNumber = (what: string) =>
	z
		.string()
		.trim()
		.default('')
		.transform((text, context) => {
			if (text === '') return undefined;
			const value = decimal(text);
			if (Number.isFinite(value)) return value;
			context.addIssue({ code: 'custom', message: `${what}: “${text}” is not a number.` });
			return z.NEVER;
		});
const optionalText = z
	.string()
	.trim()
	.max(300, 'At most 300 characters.')
	.default('')
	.transform((text) => text || undefined);

/** The fields of the substance form; empty ones are left out of the substance. */
export const substanceForm = z.object({
	id: z.uuid(),
	version: z.coerce.number().int().min(0),
	why: z.string().trim().min(1, 'Say why, and where the values come from.').max(300),
	name: z.string().trim().min(1, 'Name the substance.').max(120),
	synonyms: z.string().default(''),
	cas: optionalText,
	formula: optionalText,
	form: z.enum(['gas', 'vapour', 'dust', 'mist', 'fume', 'oil aerosol', 'biological']),
	organic: z.string().optional(),
	unit: z.enum(['ppm', 'mg/m3', 'f/cm3']),
	limitUs: z.string().trim().default(''),
	limitUk: z.string().trim().default(''),
	rel: z.string().trim().default(''),
	idlh: z.string().trim().default(''),
	molarMassGPerMol: optionalNumber('Molar mass'),
	boilingPointC: optionalNumber('Boiling point'),
	vapourPressureMmHg: optionalNumber('Vapour pressure'),
	liquidDensityGPerCm3: optionalNumber('Liquid density'),
	refractiveIndex: optionalNumber('Refractive index'),
	lelPercent: optionalNumber('Lower explosive limit'),
	odourThresholdPpm: optionalNumber('Odour threshold'),
	skinHarmPpm: optionalNumber('Vapour harms skin from'),
	warning: z.enum(['adequate', 'poor', 'none']),
	skin: z.string().optional(),
	en: z.enum(['', 'A', 'AX', 'B', 'E', 'K', 'SX', 'Hg', 'NO', 'CO']).default(''),
	us: z.enum(['', 'OV', 'AG', 'AM', 'FM', 'HS', 'HF', 'MV', 'CO']).default(''),
	organs: z.array(z.enum(ORGANS as [string, ...string[]])).default([]),
	noFilter: optionalText,
	note: optionalText
});

function danger(text: string, unit: z.output<typeof substanceForm>['unit']) {
	if (!text) return undefined;
	const [, amount = '', ownUnit] = /^(.*?)\s*(ppm|mg\/m3|f\/cm3)?$/.exec(text) ?? [];
	const value = decimal(amount);
	if (!Number.isFinite(value)) throw new Fault('invalid', `“${text}” is not a number.`, 'idlh');
	return { value, unit: (ownUnit as typeof unit | undefined) ?? unit };
}

/** What the form says as the values of a substance. */
export function editOf(form: z.output<typeof substanceForm>): SubstanceEdit {
	const { id: _, version: __, why: ___, unit, limitUs, limitUk, rel, idlh, ...plain } = form;
	const limit = (text: string, path: string) => {
		if (!text) return undefined;
		const [, amounts = '', ownUnit] = /^(.*?)\s*(ppm|mg\/m3|f\/cm3)?$/.exec(text) ?? [];
		if (!/^(c?\d+([.,]\d+)?|-)(\/c?\d+([.,]\d+)?)?$/.test(amounts))
			throw new Fault(
				'invalid',
				`“${text}” is no limit: write 50, 50/100 for mean and short-term, or c10 for a ceiling; another unit than the row's behind it: 0.02 mg/m3.`,
				path
			);
		return limitOf(amounts.replaceAll(',', '.'), (ownUnit as typeof unit | undefined) ?? unit);
	};
	const [us, uk] = [limit(limitUs, 'limitUs'), limit(limitUk, 'limitUk')];
	return {
		...plain,
		synonyms: form.synonyms
			.split(/[;\n]/)
			.map((word) => word.trim())
			.filter(Boolean),
		organic: form.organic === 'on',
		skin: form.skin === 'on',
		en: form.en || undefined,
		us: form.us || undefined,
		organs: form.organs as SubstanceEdit['organs'],
		limits: { ...(us ? { us } : {}), ...(uk ? { uk } : {}) },
		rel: limit(rel, 'rel'),
		idlh: danger(idlh, unit)
	};
}
