import { z } from 'zod';
import { limitOf } from '../../../core/data/substance-table.ts';
import {
	CONTAMINANT_FORMS,
	EN_GAS_TYPES,
	HARMS,
	TARGET_ORGANS,
	US_GAS_TYPES,
	type ExposureLimit,
	type Substance
} from '../../../core/data/substance.ts';
import { limitUnitOf } from '../../../core/substances/record.ts';
import { CONCENTRATION_UNITS, type ConcentrationUnit } from '../../../core/units/concentration.ts';
import { Refusal } from '../kernel/refusal.ts';
import { decimal, optionalNumber, ticked } from '../web/form-fields.ts';
import { requested } from '../web/request.ts';
import type { SubstanceEdit } from './substances.ts';

const number = (what: string) => optionalNumber((text) => `${what}: “${text}” is not a number.`);
const optionalText = z
	.string()
	.trim()
	.max(300, 'At most 300 characters.')
	.default('')
	.transform((text) => text || undefined);

/** The fields of the substance form; empty ones are left out of the substance. */
export const substanceFields = z.object({
	...requested,
	version: z.coerce.number().int().min(0),
	why: z.string().trim().min(1, 'Say why, and where the values come from.').max(300),
	name: z.string().trim().min(1, 'Name the substance.').max(120),
	synonyms: z.string().max(4000).default(''),
	cas: optionalText,
	formula: optionalText,
	form: z.enum(CONTAMINANT_FORMS),
	organic: ticked,
	unit: z.enum(CONCENTRATION_UNITS),
	limitUs: z.string().trim().max(40).default(''),
	limitUk: z.string().trim().max(40).default(''),
	rel: z.string().trim().max(40).default(''),
	idlh: z.string().trim().max(40).default(''),
	molarMassGPerMol: number('Molar mass'),
	boilingPointC: number('Boiling point'),
	vapourPressureMmHg: number('Vapour pressure'),
	liquidDensityGPerCm3: number('Liquid density'),
	refractiveIndex: number('Refractive index'),
	lelPercent: number('Lower explosive limit'),
	odourThresholdPpm: number('Odour threshold'),
	skinHarmPpm: number('Vapour harms skin from'),
	warning: z.enum(['adequate', 'poor', 'none']),
	skin: ticked,
	en: z.enum(['', ...EN_GAS_TYPES]).default(''),
	us: z.enum(['', ...US_GAS_TYPES]).default(''),
	organs: z.array(z.enum(TARGET_ORGANS)).max(TARGET_ORGANS.length).default([]),
	harms: z.array(z.enum(HARMS)).max(HARMS.length).default([]),
	noFilter: optionalText,
	note: optionalText
});

/** What stands before the unit, and the unit: the row's own where the text carries none. */
function apart(text: string, unit: ConcentrationUnit): [amount: string, unit: ConcentrationUnit] {
	const own = CONCENTRATION_UNITS.find((word) => text.endsWith(word));
	return own ? [text.slice(0, -own.length).trimEnd(), own] : [text, unit];
}

function danger(text: string, rowUnit: ConcentrationUnit) {
	if (!text) return undefined;
	const [amount, unit] = apart(text, rowUnit);
	const value = decimal(amount);
	if (!Number.isFinite(value)) throw new Refusal('invalid', `“${text}” is not a number.`, 'idlh');
	return { value, unit };
}

/** What the form says as the values of a substance. */
export function editOf(form: z.output<typeof substanceFields>): SubstanceEdit {
	const { requestId: _, version: __, why: ___, unit, limitUs, limitUk, rel, idlh, ...plain } = form;
	const limit = (text: string, path: string) => {
		if (!text) return undefined;
		const [amounts, own] = apart(text, unit);
		if (!/^(c?\d+([.,]\d+)?|-)(\/c?\d+([.,]\d+)?)?$/.test(amounts))
			throw new Refusal(
				'invalid',
				`“${text}” is no limit: write 50, 50/100 for mean and short-term, or c10 for a ceiling; another unit than the row's behind it: 0.02 mg/m3.`,
				path
			);
		return limitOf(amounts.replaceAll(',', '.'), own);
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
		harms: form.harms.length ? form.harms : undefined,
		limits: { ...(us ? { us } : {}), ...(uk ? { uk } : {}) },
		rel: limit(rel, 'rel'),
		idlh: danger(idlh, unit)
	};
}

/** What the fields of the form hold for a substance: the other way round. */
export function typedOf(s: Substance): Record<string, unknown> {
	const unit = limitUnitOf(s);
	const behind = (own: ConcentrationUnit) => (own === unit ? '' : ` ${own}`);
	const limit = (limit: ExposureLimit | undefined) => {
		if (!limit) return '';
		const ceiling = limit.shortKind === 'ceiling' ? 'c' : '';
		const amounts =
			limit.twa === undefined
				? `${ceiling || '-/'}${limit.short ?? ''}`
				: `${limit.twa}${limit.short === undefined ? '' : `/${ceiling}${limit.short}`}`;
		return amounts + behind(limit.unit);
	};
	return {
		...s,
		unit,
		synonyms: s.synonyms.join('; '),
		limitUs: limit(s.limits.us),
		limitUk: limit(s.limits.uk),
		rel: limit(s.rel),
		idlh: s.idlh ? `${s.idlh.value}${behind(s.idlh.unit)}` : ''
	};
}
