import { poissonQuantile } from '../../stats/poisson.ts';
import { type Day, plusDays } from '../calendar.ts';

/** Something that is used up: what there is, and what will be used on each day. */
export interface Supply {
	/** Lots in hand, each with the last day on which it may be used; null: it keeps. */
	lots: readonly { quantity: number; useBy: Day | null }[];
	/** Mean use on each day from the first. */
	use: readonly number[];
	/** Days from order to delivery. */
	leadTimeDays: number;
	/** How long what comes may be kept before it is used, days; null: it keeps. */
	keepsDays: number | null;
}

export interface BuyLine {
	/** How many to order; 0: enough is there. */
	order: number;
	/** Last day on which the order goes out in time; null: not within the days. */
	orderBy: Day | null;
	/** Whether that is today already, with less in hand than the lead time may use. */
	late: boolean;
	/** What will be used within the days, on average. */
	expected: number;
	inHand: number;
	/** In hand, and past its last day before it is used. */
	wasted: number;
	/** Least stock at which an order goes out. */
	reorderAt: number;
}

/** How far an order reaches beyond its delivery, days. Site default. */
export const ORDER_FOR_DAYS = 30;

/**
 * What to order and by when: the order goes out before the stock falls under what the lead time may use (Poisson, at the
 * service level), and brings what is used until the next, no more than is used before it is too old.
 * @param from first day
 * @param serviceLevel chance to have enough, above 0 and below 1
 */
export function buyLine(supply: Supply, from: Day, serviceLevel: number): BuyLine {
	const { use, leadTimeDays, keepsDays } = supply;
	const meanFrom = (day: number, days: number) => {
		let sum = 0;
		// Beyond the days it goes on as in their last week.
		for (let on = day; on < day + days; on++) sum += use[on] ?? lastWeek(use);
		return sum;
	};
	const expected = use.reduce((sum, one) => sum + one, 0);
	const inHand = supply.lots.reduce((sum, { quantity }) => sum + quantity, 0);
	const { left, wasted } = usedUp(supply, from);
	const needAt = (day: number) => poissonQuantile(serviceLevel, meanFrom(day, leadTimeDays));
	const runsLow = use.findIndex((_, day) => (left[day] ?? 0) < needAt(day));
	if (runsLow < 0)
		return { order: 0, orderBy: null, late: false, expected, inHand, wasted, reorderAt: needAt(0) };
	const reach = leadTimeDays + Math.min(ORDER_FOR_DAYS, keepsDays ?? Infinity);
	const order = Math.max(
		0,
		Math.ceil(poissonQuantile(serviceLevel, meanFrom(runsLow, reach)) - (left[runsLow] ?? 0))
	);
	return {
		order,
		orderBy: order > 0 ? plusDays(from, runsLow) : null,
		late: order > 0 && runsLow === 0,
		expected,
		inHand,
		wasted,
		reorderAt: needAt(0)
	};
}

const LAST_WEEK = 7;
const lastWeek = (use: readonly number[]): number => {
	const last = use.slice(-LAST_WEEK);
	return last.length ? last.reduce((sum, one) => sum + one, 0) / last.length : 0;
};

/** What is left at the start of each day when what is oldest is used first, and what grows too old before it is used. */
function usedUp({ lots, use }: Supply, from: Day): { left: number[]; wasted: number } {
	const stock = [...lots]
		.sort((a, b) => (a.useBy ?? '9999').localeCompare(b.useBy ?? '9999'))
		.map((lot) => ({ ...lot }));
	const left: number[] = [];
	let wasted = 0;
	use.forEach((mean, day) => {
		const today = plusDays(from, day);
		for (const lot of stock)
			if (lot.useBy !== null && lot.useBy < today) {
				wasted += lot.quantity;
				lot.quantity = 0;
			}
		left.push(stock.reduce((sum, { quantity }) => sum + quantity, 0));
		let wanted = mean;
		for (const lot of stock) {
			const taken = Math.min(wanted, lot.quantity);
			lot.quantity -= taken;
			wanted -= taken;
		}
	});
	return { left, wasted };
}
