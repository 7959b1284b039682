import type { Agent } from '../register/model-card.ts';
import {
	commonPractice,
	maker,
	type Origin,
	published,
	type Reason,
	type Verdict
} from '../verdict.ts';
import { DOSE_PPM } from './dilution.ts';

/** Hottest that a mask is washed where its maker names nothing else, °C. Published: 29 CFR 1910.134 app. B-2; from memory. */
export const WASH_MAX_C = 43;
/** Shortest contact of chlorine and iodine, min. Published: app. B-2; from memory. */
export const CONTACT_MIN = 2;

/** How the things of a batch were dried. */
export const DRYING = ['air', 'cabinet', 'direct heat'] as const;
export type Drying = (typeof DRYING)[number];

/** Agents of a bath. */
export const BATH_AGENTS = ['chlorine', 'iodine', 'quaternary ammonium'] as const satisfies Agent[];
export type BathAgent = (typeof BATH_AGENTS)[number];

/** A batch as it was washed, disinfected and dried. */
export interface WashDone {
	temperatureC: number;
	/** Hottest that the strictest model of the batch takes; left out: the published one. */
	temperatureLimitC?: number | undefined;
	agent: BathAgent;
	/** Of chlorine and iodine; of quaternary ammonium its label decides. */
	dosePpm?: number | undefined;
	contactMin: number;
	/** Rinsed thoroughly after the agent. */
	rinsed: boolean;
	driedBy: Drying;
	cabinetC?: number | undefined;
	/** Hottest cabinet that the strictest model of the batch takes. */
	cabinetLimitC?: number | undefined;
}

const B2 = published('29 CFR 1910.134 appendix B-2');

/** Whether a batch was washed, disinfected and dried as it has to be, with every reason. */
export function judgeWash(wash: WashDone): Verdict<'pass' | 'fail'> {
	const reasons: Reason[] = [];
	let passed = true;
	const say = (
		holds: boolean,
		rule: string,
		text: string,
		origin: Origin,
		figures: Partial<Reason> = {}
	) => {
		passed &&= holds;
		reasons.push({ rule: `wash.${rule}`, text, origin, ...figures });
	};
	const own = wash.temperatureLimitC;
	const limitC = own ?? WASH_MAX_C;
	say(
		wash.temperatureC <= limitC,
		'temperature',
		`Washed at ${wash.temperatureC} °C; ${limitC} °C at most${wash.temperatureC <= limitC ? '' : ': look at the discs, they may have warped'}.`,
		own === undefined ? B2 : maker('hottest wash of the strictest model in the batch'),
		{
			limit: limitC,
			value: wash.temperatureC,
			unit: '°C',
			margin: limitC - wash.temperatureC
		}
	);
	if (wash.agent === 'quaternary ammonium')
		say(
			wash.contactMin > 0 && wash.dosePpm !== 0,
			'label',
			wash.contactMin > 0 && wash.dosePpm !== 0
				? `Quaternary ammonium for ${wash.contactMin} min: dose and time as its label says.`
				: 'Quaternary ammonium without dose or time disinfects nothing: as its label says.',
			published('29 CFR 1910.134 appendix B-2, the label of the agent')
		);
	else {
		const dose = wash.dosePpm;
		say(
			dose !== undefined && dose >= DOSE_PPM,
			'dose',
			dose === undefined
				? `The dose of ${wash.agent} is not known: measure it, or work it out from stock and volume.`
				: `${Number(dose.toPrecision(3))} ppm of ${wash.agent}; ${DOSE_PPM} at least.`,
			B2,
			dose === undefined
				? {}
				: { limit: DOSE_PPM, value: dose, unit: 'ppm', margin: dose - DOSE_PPM }
		);
		say(
			wash.contactMin >= CONTACT_MIN,
			'contact',
			`In the bath for ${wash.contactMin} min; ${CONTACT_MIN} at least.`,
			B2,
			{
				limit: CONTACT_MIN,
				value: wash.contactMin,
				unit: 'min',
				margin: wash.contactMin - CONTACT_MIN
			}
		);
	}
	say(
		wash.rinsed,
		'rinsed',
		wash.rinsed
			? 'Rinsed thoroughly.'
			: 'Not rinsed: what stays of the agent eats rubber and stings on the skin. Rinse it, then dry it anew.',
		B2
	);
	if (wash.driedBy === 'direct heat')
		say(
			false,
			'direct-heat',
			'Dried by direct heat: seals and discs lose their shape. Look at each of them.',
			commonPractice()
		);
	if (wash.driedBy === 'air')
		say(true, 'air-dried', 'Dried in the air of the room.', commonPractice());
	if (wash.driedBy === 'cabinet') {
		const { cabinetC, cabinetLimitC } = wash;
		const known = cabinetC !== undefined && cabinetLimitC !== undefined;
		say(
			known && cabinetC <= cabinetLimitC,
			'cabinet',
			known
				? `The cabinet at ${cabinetC} °C; ${cabinetLimitC} °C at most.`
				: cabinetC === undefined
					? 'How warm the cabinet was is not known.'
					: 'How warm a cabinet these models take is not known: dry them in the air, or enter the maker’s figure.',
			maker('hottest cabinet of the strictest model in the batch'),
			known
				? {
						limit: cabinetLimitC,
						value: cabinetC,
						unit: '°C',
						margin: cabinetLimitC - cabinetC
					}
				: {}
		);
	}
	return { outcome: passed ? 'pass' : 'fail', reasons };
}
