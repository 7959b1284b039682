import { plusDays, plusMonths, readable, type Day } from '../plan/calendar.ts';
import { commonPractice, computed, maker, type Reason } from '../verdict.ts';

/** Opened gas filters last this long at most. Common practice; the maker may say less. */
export const OPENED_GAS_MONTHS = 6;
/** Particle filters, from first use. Common practice. */
export const OPENED_PARTICLE_MONTHS = 12;

export interface OpenedPair {
	openedOn: Day;
	catchesGas: boolean;
	catchesParticles: boolean;
	/** The maker's own limit after opening, months. */
	makerOpenedMonths?: number | null;
	/** From the plan: minutes of wear until the change; null without a time. */
	changeAfterMin?: number | null;
	/** From the plan: minutes of wear in one shift. */
	exposureMin?: number | null;
	singleUse?: boolean;
}

export interface ChangeDate {
	/** The last day on which the pair may be worn. */
	changeOn: Day;
	/** Minutes of wear until the change, where the plan gives them. */
	changeAfterMin: number | null;
	reasons: Reason[];
}

/**
 * The day by which an opened pair is changed: the earliest of all limits that apply, each listed with its own
 * day. Wear limits assume that the pair is worn on every day from its opening on.
 */
export function changeDate(pair: OpenedPair): ChangeDate {
	const limits: { day: Day; reason: Reason }[] = [];
	const add = (day: Day, reason: Omit<Reason, 'inputs'>) => limits.push({ day, reason });
	if (pair.catchesGas) {
		const day = plusMonths(pair.openedOn, OPENED_GAS_MONTHS);
		add(day, {
			rule: 'change.opened-gas',
			text: `Gas filters: ${OPENED_GAS_MONTHS} months after opening, ${readable(day)}.`,
			origin: commonPractice()
		});
	}
	if (pair.catchesParticles) {
		const day = plusMonths(pair.openedOn, OPENED_PARTICLE_MONTHS);
		add(day, {
			rule: 'change.opened-particle',
			text: `Particle filters: one year after first use, ${readable(day)}.`,
			origin: commonPractice()
		});
	}
	if (pair.makerOpenedMonths) {
		const day = plusMonths(pair.openedOn, pair.makerOpenedMonths);
		add(day, {
			rule: 'change.opened-maker',
			text: `The maker says ${pair.makerOpenedMonths} months after opening, ${readable(day)}.`,
			origin: maker('filter model')
		});
	}
	const wear = wearLimit(pair);
	if (wear) add(wear.day, wear.reason);
	limits.sort((a, b) => a.day.localeCompare(b.day));
	return {
		changeOn: limits[0]?.day ?? pair.openedOn,
		changeAfterMin: pair.changeAfterMin ?? null,
		reasons: limits.map((limit) => limit.reason)
	};
}

function wearLimit(pair: OpenedPair): { day: Day; reason: Reason } | undefined {
	const { changeAfterMin, exposureMin, openedOn } = pair;
	if (pair.singleUse)
		return {
			day: openedOn,
			reason: {
				rule: 'change.single-use',
				text: `Once only: discard at the end of ${readable(openedOn)}, at the latest after the time of the plan.`,
				origin: computed('boiling point at or below 65 °C, or a filter for single use')
			}
		};
	if (changeAfterMin === null || changeAfterMin === undefined || !exposureMin) return undefined;
	const shifts = Math.max(1, Math.floor(changeAfterMin / exposureMin));
	const day = plusDays(openedOn, shifts - 1);
	return {
		day,
		reason: {
			rule: 'change.service-life',
			text:
				changeAfterMin < exposureMin
					? `After ${changeAfterMin} min of wear, within the shift of ${readable(day)}.`
					: `After ${changeAfterMin} min of wear: ${shifts} ${shifts === 1 ? 'shift' : 'shifts'} of ${exposureMin} min, ${readable(day)} when worn daily.`,
			origin: computed('estimated service life of the plan'),
			limit: changeAfterMin,
			unit: 'min'
		}
	};
}
