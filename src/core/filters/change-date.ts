import { plusDays, plusMonths, readable, type Day } from '../plan/calendar.ts';
import type { Ledger } from './ledger.ts';
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
	/** It stays sealed in its pack where it is fitted: its use-by date, which counts while the pack is sealed. */
	sealedUntil?: Day | null;
	/** What the ledger says of its wear, where any was entered. */
	ledger?: Pick<Ledger, 'used' | 'usedUpOn' | 'lastWornOn'> | null;
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
 * day. Wear limits assume that the pair is worn on every day from its opening on, or from the last task that the
 * ledger holds.
 */
export function changeDate(pair: OpenedPair): ChangeDate {
	const limits: { day: Day; reason: Reason }[] = [];
	const add = (day: Day, reason: Omit<Reason, 'inputs'>) => limits.push({ day, reason });
	if (pair.sealedUntil)
		return {
			changeOn: pair.sealedUntil,
			changeAfterMin: null,
			reasons: [
				{
					rule: 'change.sealed',
					text: `Sealed in its pack: its use-by date counts, ${readable(pair.sealedUntil)}.`,
					origin: maker('use-by date on the pack')
				}
			]
		};
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
	const { changeAfterMin, exposureMin, openedOn, ledger } = pair;
	if (ledger?.usedUpOn)
		return {
			day: plusDays(ledger.usedUpOn, -1),
			reason: {
				rule: 'change.used-up',
				text: `Its life was used up on ${readable(ledger.usedUpOn)}: not to be worn again.`,
				origin: computed('wear ledger'),
				limit: 1,
				value: ledger.used,
				margin: 1 - ledger.used
			}
		};
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
	if (ledger?.lastWornOn) return byLedger(ledger, ledger.lastWornOn, changeAfterMin, exposureMin);
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

/** What is left of its life in whole shifts after the last task that was entered. */
function byLedger(
	ledger: Pick<Ledger, 'used'>,
	lastWornOn: Day,
	changeAfterMin: number,
	exposureMin: number
): { day: Day; reason: Reason } {
	const leftMin = Math.max(0, (1 - ledger.used) * changeAfterMin);
	const shifts = Math.floor(leftMin / exposureMin);
	const day = plusDays(lastWornOn, shifts);
	return {
		day,
		reason: {
			rule: 'change.ledger',
			text:
				shifts > 0
					? `${Math.round(leftMin)} min of its life are left: ${shifts} ${shifts === 1 ? 'shift' : 'shifts'} of ${exposureMin} min after ${readable(lastWornOn)}, ${readable(day)}.`
					: `${Math.round(leftMin)} min of its life are left, less than a shift of ${exposureMin} min.`,
			origin: computed('wear ledger and estimated service life of the plan'),
			limit: changeAfterMin,
			value: ledger.used * changeAfterMin,
			unit: 'min',
			margin: leftMin
		}
	};
}
