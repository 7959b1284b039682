import { recordOf } from '../data/family-records.ts';
import type { ModelCard } from '../register/model-card.ts';
import { commonPractice, type Reason, type Verdict } from '../verdict.ts';
import {
	type BathAgent,
	CONTACT_MIN,
	type Drying,
	judgeWash,
	WASH_MAX_C,
	type WashDone
} from './wash-check.ts';

/** The steps of a batch, in their order. */
export const BATCH_STEPS = ['load', 'wash', 'disinfect', 'rinse', 'dry', 'ended'] as const;
export type BatchStep = (typeof BATCH_STEPS)[number];

export const STEP_WORDS: Readonly<Record<BatchStep, string>> = {
	load: 'Loading',
	wash: 'Washing',
	disinfect: 'Disinfecting',
	rinse: 'Rinsing',
	dry: 'Drying',
	ended: 'Ended'
};

/** What a bath is washed with. Only the neutral one goes before chlorine: acids and ammonia make poisonous gas of it. */
export const CLEANERS = ['neutral', 'acid', 'ammonia'] as const;
export type Cleaner = (typeof CLEANERS)[number];

/** What is done with the items of a batch that broke a limit. */
export const BROKEN_DECISIONS = ['again', 'inspect discs', 'hold'] as const;
export type BrokenDecision = (typeof BROKEN_DECISIONS)[number];

export const DECISION_WORDS: Readonly<Record<BrokenDecision, string>> = {
	again: 'All of it goes through the wash again.',
	'inspect discs': 'Each goes on to the look, its discs first.',
	hold: 'All of it is held until somebody has decided.'
};

/** Longest that rubber lies in a bath, min: what was left overnight has swollen. Site default. */
export const LONGEST_BATH_MIN = 60;
/** Wipes between two full washes at most. Site default. */
export const MOST_WIPES = 5;

/** What is known of something that is to go into a bath. */
export interface BathItem {
	tag: string;
	family: string;
	card: Pick<ModelCard, 'agents' | 'washMaxC' | 'cabinetMaxC'>;
	/** A contaminant on it that wants a bath of its own; null: none. */
	ownBath: string | null;
}

export interface BathOpen {
	/** Chosen already; null: not yet. */
	agent: BathAgent | null;
	/** What this bath is for alone. */
	onlyFor: string | null;
	/** What lies in it. */
	items: readonly BathItem[];
}

/** Why something may not go into a bath; empty: it may. Every reason at once. */
export function refusedFromBath(item: BathItem, bath: BathOpen): Reason[] {
	const reasons: Reason[] = [];
	const say = (rule: string, text: string) =>
		reasons.push({ rule: `bath.${rule}`, text, origin: commonPractice('wash line') });
	if (!recordOf(item.family).washed)
		say('never-immersed', `${item.tag} is never immersed: it is wiped.`);
	if (bath.agent && item.card.agents && !item.card.agents.includes(bath.agent))
		say(
			'agent',
			`Its maker does not allow ${bath.agent}: ${item.card.agents.join(', ') || 'no agent'} only.`
		);
	if (item.ownBath !== null && bath.onlyFor !== item.ownBath) {
		if (bath.items.length > 0 || bath.onlyFor !== null)
			say('own-bath', `${item.ownBath} is on it: a bath of its own, with nothing else.`);
	} else if (item.ownBath === null && bath.onlyFor !== null)
		say('only-for', `This bath is for ${bath.onlyFor} alone.`);
	return reasons;
}

/** The strictest of what lies in a bath: how warm, how hot a cabinet, and which agents all of them take. */
export function strictest(items: readonly BathItem[], agents: readonly BathAgent[]) {
	const cabinets = items.map(({ card }) => card.cabinetMaxC);
	return {
		/** Hottest wash, °C: the published one where a maker names none. */
		washMaxC: Math.min(...items.map(({ card }) => card.washMaxC ?? WASH_MAX_C), Infinity),
		/** Hottest cabinet, °C; undefined where one of them does not say. */
		cabinetMaxC: cabinets.some((c) => c === undefined)
			? undefined
			: Math.min(...cabinets.flatMap((c) => c ?? []), Infinity),
		agents: agents.filter((agent) =>
			items.every(({ card }) => card.agents === undefined || card.agents.includes(agent))
		)
	};
}

/** Why an agent may not follow a cleaner; null: it may. */
export const neverMixed = (cleaner: Cleaner, agent: BathAgent): string | null =>
	agent === 'chlorine' && cleaner !== 'neutral'
		? `Never chlorine after ${cleaner === 'acid' ? 'an acid' : 'an ammonia'} cleaner: poisonous gas. Rinse all of it out, end this batch, and start another with a neutral one.`
		: null;

/** A batch as it went, moments in ms. */
export interface BatchDone {
	items: readonly BathItem[];
	/** Every temperature that was read, °C; the hottest counts. */
	readings: readonly number[];
	agent: BathAgent;
	dosePpm: number | null;
	washedAt: number;
	dosedAt: number;
	/** Taken out of the agent. */
	rinsedAt: number;
	rinsed: boolean;
	driedBy: Drying;
	cabinetC: number | null;
}

/** Whether a batch was washed, disinfected and dried as the strictest of its models asks, with every reason. */
export function judgeBatch(batch: BatchDone): Verdict<'pass' | 'fail'> {
	const { washMaxC, cabinetMaxC } = strictest(batch.items, [batch.agent]);
	const hottest = Math.max(...batch.readings, -Infinity);
	const own = batch.items.some(({ card }) => card.washMaxC !== undefined);
	const done: WashDone = {
		temperatureC: hottest,
		...(own ? { temperatureLimitC: washMaxC } : {}),
		agent: batch.agent,
		...(batch.dosePpm === null ? {} : { dosePpm: batch.dosePpm }),
		contactMin: Number(((batch.rinsedAt - batch.dosedAt) / 60_000).toFixed(1)),
		rinsed: batch.rinsed,
		driedBy: batch.driedBy,
		...(batch.cabinetC === null ? {} : { cabinetC: batch.cabinetC }),
		...(cabinetMaxC === undefined ? {} : { cabinetLimitC: cabinetMaxC })
	};
	const verdict = judgeWash(
		batch.readings.length
			? done
			: { ...done, temperatureC: WASH_MAX_C, temperatureLimitC: undefined }
	);
	const reasons = batch.readings.length
		? verdict.reasons
		: [NOT_READ, ...verdict.reasons.filter(({ rule }) => rule !== 'wash.temperature')];
	const bathMin = (batch.rinsedAt - batch.washedAt) / 60_000;
	const left = bathMin > LONGEST_BATH_MIN;
	if (left) reasons.unshift(leftIn(bathMin));
	const outcome = left || batch.readings.length === 0 ? 'fail' : verdict.outcome;
	return { outcome, reasons };
}

const NOT_READ: Reason = {
	rule: 'wash.temperature-unknown',
	text: 'How warm the bath was is not known: read it next time. Look at the discs.',
	origin: commonPractice()
};

const leftIn = (minutes: number): Reason => ({
	rule: 'wash.left-in',
	text: `It lay in the bath for ${minutes >= 120 ? `${Math.round(minutes / 60)} h` : `${Math.round(minutes)} min`}: rubber swells and discs curl. Look at each.`,
	origin: commonPractice('longest bath, site default'),
	limit: LONGEST_BATH_MIN,
	value: minutes,
	unit: 'min',
	margin: LONGEST_BATH_MIN - minutes
});

/** Minutes that an agent acts at least: the published ones, or what the label says. */
export const contactAsked = (agent: BathAgent, labelMin: number | null): number =>
	agent === 'quaternary ammonium' ? (labelMin ?? CONTACT_MIN) : CONTACT_MIN;
