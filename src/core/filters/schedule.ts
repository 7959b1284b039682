import { type CardPicture, cardPictures } from '../drawings/card.ts';
import type { HazardDecision } from '../hazards/decision.ts';
import type { HazardFacts } from '../hazards/facts.ts';
import { written } from '../hazards/facts.ts';
import { shownKind } from '../hazards/shown-kind.ts';
import { readableNumber } from '../units/number.ts';
import type { PlanLife } from './plan-life.ts';

/** The change schedule of a task, as it hangs on the wall. */
export interface ScheduleCard {
	heading: string;
	/** What is worn, with the code. */
	wear: string;
	code: string | null;
	/** Large on the card. */
	change: string;
	lines: string[];
	cautions: string[];
	/** What is looked at before one goes in. */
	pictures: CardPicture[];
}

const WORK_WORDS: Record<HazardFacts['workRate'], string> = {
	rest: 'At rest',
	light: 'Light work',
	moderate: 'Moderate work',
	hard: 'Hard work',
	heavy: 'Heavy work'
};

/** Minutes as hours and minutes. */
export function clock(minutes: number): string {
	const whole = Math.round(minutes);
	return whole >= 60
		? `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, '0')}`
		: `${whole} min`;
}

/** The words of a change schedule; numbers only from the decision and the life. */
export function scheduleCard(
	task: string,
	place: string,
	facts: HazardFacts,
	decision: HazardDecision,
	life: PlanLife | null
): ScheduleCard {
	const kind = shownKind(decision);
	const code = kind?.filters?.[facts.ruleSet === 'us' ? 'us' : 'en'] ?? null;
	const air = decision.contaminants.map((c) =>
		c.concentration
			? `${c.name}, ${readableNumber(c.concentration.value, 3)} ${written(c.concentration.unit)}${c.summary ? ` (upper limit of ${c.summary.n} measurements)` : ''}`
			: `${c.name}, not measured`
	);
	const filtered = decision.outcome === 'filter' && life;
	const again = life?.singleUse
		? 'Once only. Discard at the end of the shift.'
		: 'May be worn again on another day while time is left; keep it sealed in its bag.';
	return {
		heading: `${task}, ${place}`,
		pictures: kind ? cardPictures(kind.kind) : [],
		wear:
			kind?.label ??
			(decision.outcome === 'filter' ? 'Nothing has to be worn' : 'Nothing permits entry'),
		code,
		change: !filtered
			? 'No filter here'
			: life.changeAfterMin === null
				? 'Change by resistance, damage and date'
				: `Change after ${clock(life.changeAfterMin)} of wear`,
		lines: [
			`In the air: ${air.join('; ')}.`,
			`${WORK_WORDS[facts.workRate]}, ${facts.temperatureC} °C, ${facts.relativeHumidityPercent} % humidity, ${facts.exposureMin} min a shift.`,
			...(filtered && life.changeAfterMin !== null ? [again] : []),
			...(filtered
				? ['Both filters together: same type, class and opening date, initials on both.']
				: []),
			...new Set([...(kind?.conditions ?? []), ...decision.conditions])
		],
		cautions: [
			'Leave at once on smell, taste, irritation, harder breathing or dizziness. Smell is the last alarm, never the schedule.',
			'Holds for these concentrations only. Local law, the maker’s instructions and a competent person come first.'
		]
	};
}
