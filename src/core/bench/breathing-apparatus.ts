import { InputError, maker, published, type Reason, type Verdict } from '../verdict.ts';

export type TestOutcome = 'pass' | 'pass, marginal' | 'fail' | 'repeat';

/** Most pressure a closed set may lose in a minute, bar. Published: EN 137; from memory; makers may be stricter. */
export const HOLD_DROP_BAR = 10;
export const HOLD_SECONDS = 60;
/** The whistle starts within this band, bar. Published: EN 137, 55 ± 5; from memory. */
export const WHISTLE_BAND_BAR = { from: 50, to: 60 } as const;
/** Least pressure of an emergency set, as a share of the rated one. Published: 29 CFR 1910.134(h)(3)(iii); from memory. */
export const READY_SHARE = 0.9;
/** What the gauge of a set can show. Common practice. */
const GAUGE_TOP_BAR = 450;
/** Sums of decimal readings carry rounding in the last bits; it must not decide. */
const ROUNDING = 1e-9;

const EN_137 = published('EN 137');
const BAR_PER_MPA = 10;
const PSI_PER_BAR = 14.5038;

/**
 * A reading that was likely typed in another unit, with what it would be in bar; undefined when it fits.
 * The conversion is offered, never made silently.
 */
export function suspectUnit(
	value: number,
	expected: { from: number; to: number }
): { unit: 'MPa' | 'psi'; bar: number } | undefined {
	const fits = (bar: number) => bar >= expected.from && bar <= expected.to;
	if (fits(value)) return undefined;
	if (value > expected.to && fits(value / PSI_PER_BAR))
		return { unit: 'psi', bar: value / PSI_PER_BAR };
	if (value < expected.from && fits(value * BAR_PER_MPA))
		return { unit: 'MPa', bar: value * BAR_PER_MPA };
	return undefined;
}

/** @throws InputError at path when a gauge cannot show the value. */
export function checkGaugeBar(value: number, path: string): void {
	if (!Number.isFinite(value) || value < 0)
		throw new InputError(path, 'A gauge pressure cannot be below zero.');
	if (value > GAUGE_TOP_BAR) {
		const other = suspectUnit(value, { from: 20, to: GAUGE_TOP_BAR });
		throw new InputError(
			path,
			`${value} bar is more than a gauge shows.${other ? ` If this was ${other.unit}: ${other.bar.toFixed(0)} bar.` : ''}`
		);
	}
}

/** Rated pressure taken for the start of a hold where none is given, bar. Common practice: the lower of the two. */
const LEAST_RATED_BAR = 200;

/** What a hold is judged against. */
export interface HoldRule {
	/** Most that may be lost, bar. */
	limitBar?: number | undefined;
	/** Whether a loss of just that still passes; several makers say less than it. */
	limitIncluded?: boolean | undefined;
	/** Rated pressure of the set: from less than nine tenths of it there is nothing to judge. */
	ratedBar?: number | undefined;
}

/**
 * The one-minute hold of a closed set.
 *
 * *Repeat* where it began too low, was too short, or rose: a closed set gains nothing, so that what rose is warming or
 * a valve that is not shut, and may hide a leak.
 * @throws InputError at startBar or endBar on readings that cannot be, at seconds on none, at limitBar or ratedBar.
 */
export function holdTest(
	startBar: number,
	endBar: number,
	seconds: number,
	{
		limitBar: mostDropBar = HOLD_DROP_BAR,
		limitIncluded = true,
		ratedBar = LEAST_RATED_BAR
	}: HoldRule = {}
): Verdict<TestOutcome> & { dropBar: number } {
	checkGaugeBar(startBar, 'startBar');
	checkGaugeBar(endBar, 'endBar');
	if (!(mostDropBar > 0 && mostDropBar <= GAUGE_TOP_BAR))
		throw new InputError('limitBar', 'The limit of a hold lies above zero.');
	if (!(ratedBar > 0 && ratedBar <= GAUGE_TOP_BAR))
		throw new InputError('ratedBar', `A rated pressure lies above 0, up to ${GAUGE_TOP_BAR} bar.`);
	if (!(seconds > 0) || !Number.isFinite(seconds))
		throw new InputError('seconds', 'The time of the hold must be above zero.');
	const dropBar = Number((startBar - endBar).toFixed(9));
	const reason = (rule: string, text: string): Reason => ({
		rule,
		text,
		origin: EN_137,
		inputs: [
			{ name: 'start', value: startBar, unit: 'bar' },
			{ name: 'end', value: endBar, unit: 'bar' },
			{ name: 'time', value: seconds, unit: 's' }
		],
		limit: mostDropBar,
		value: dropBar,
		unit: 'bar',
		margin: Number((mostDropBar - dropBar).toFixed(9))
	});
	const repeat = (rule: string, text: string) => ({
		outcome: 'repeat' as const,
		dropBar,
		reasons: [reason(rule, text)]
	});
	const most = `${limitIncluded ? '' : 'less than '}${mostDropBar}${limitIncluded ? ' at most' : ''}`;
	const fits = (bar: number) =>
		limitIncluded ? bar <= mostDropBar + ROUNDING : bar < mostDropBar - ROUNDING;
	const within = fits(dropBar);
	const least = Number((ratedBar * READY_SHARE).toFixed(9));
	if (startBar < least - ROUNDING)
		return repeat(
			'hold.start',
			`It began at ${startBar} bar; a hold begins at ${least} bar at least, nine tenths of ${ratedBar}. Fill it and hold again.`
		);
	if (dropBar < 0)
		return repeat(
			'hold.rising',
			`It rose from ${startBar} to ${endBar} bar. A closed set gains none: warming, or a valve that is not shut, may hide a leak. Hold again.`
		);
	if (!within && !fits((dropBar * HOLD_SECONDS) / Math.max(seconds, HOLD_SECONDS)))
		return {
			outcome: 'fail',
			dropBar,
			reasons: [reason('hold.drop', `It lost ${dropBar} bar, ${most}.`)]
		};
	if (seconds < HOLD_SECONDS)
		return repeat(
			'hold.short',
			`Held ${seconds} s only; the hold takes ${HOLD_SECONDS} s. Hold again.`
		);
	if (!within)
		return repeat(
			'hold.long',
			`Over ${seconds} s it lost ${dropBar} bar; hold again for ${HOLD_SECONDS} s.`
		);
	return {
		outcome: 'pass',
		dropBar,
		reasons: [reason('hold.drop', `It lost ${dropBar} bar in ${seconds} s, ${most}.`)]
	};
}

/** A band of pressures, bar. */
export interface BandBar {
	from: number;
	to: number;
}

/**
 * The pressure at which the warning whistle starts.
 * @param own band of the maker, never wider than the standard's; null: the standard's
 * @throws InputError at bar on a reading that cannot be.
 */
export function whistleTest(bar: number, own: BandBar | null = null): Verdict<TestOutcome> {
	checkGaugeBar(bar, 'bar');
	const { from, to } = own ?? WHISTLE_BAND_BAR;
	const low = bar < from - ROUNDING;
	const high = bar > to + ROUNDING;
	const limit = low || bar - from < to - bar ? from : to;
	return {
		outcome: low || high ? 'fail' : 'pass',
		reasons: [
			{
				rule: low ? 'whistle.low' : high ? 'whistle.high' : 'whistle.band',
				text: low
					? `It whistled at ${bar} bar, below ${from}: too late to get out.`
					: high
						? `It whistled at ${bar} bar, above ${to}: work ends too early, and people stop heeding it.`
						: `It whistled at ${bar} bar, within ${from} to ${to}.`,
				origin: own ? maker('band of the model') : EN_137,
				limit,
				value: bar,
				unit: 'bar',
				margin: Number((limit === from ? bar - from : to - bar).toFixed(9))
			}
		]
	};
}

/**
 * The medium pressure behind the reducer, at rest.
 * @param band of the model; null: not on record, so that nothing can be judged
 * @throws InputError at bar on a reading that cannot be.
 */
export function mediumTest(bar: number, band: BandBar | null): Verdict<TestOutcome> {
	checkGaugeBar(bar, 'bar');
	const origin = maker('band of the model');
	if (!band)
		return {
			outcome: 'repeat',
			reasons: [
				{
					rule: 'medium.unknown',
					text: 'The model has no band of medium pressure on record: enter the maker’s, then read it again.',
					origin
				}
			]
		};
	const margin = Number(Math.min(bar - band.from, band.to - bar).toFixed(9));
	return {
		outcome: margin < -ROUNDING ? 'fail' : 'pass',
		reasons: [
			{
				rule: 'medium.band',
				text: `${bar} bar of medium pressure; ${band.from} to ${band.to} by its maker.`,
				origin,
				limit: bar - band.from < band.to - bar ? band.from : band.to,
				value: bar,
				unit: 'bar',
				margin
			}
		]
	};
}

/**
 * Whether a set holds enough air to stand ready.
 * @throws InputError at bar on a reading that cannot be.
 */
export function fillTest(bar: number, ratedBar: number): Verdict<TestOutcome> {
	checkGaugeBar(bar, 'bar');
	const least = ratedBar * READY_SHARE;
	const enough = bar >= least - ROUNDING;
	return {
		outcome: enough ? 'pass' : 'fail',
		reasons: [
			{
				rule: 'fill.ninety',
				text: `${bar} bar of ${ratedBar}; ${Number(least.toFixed(2))} bar is 90 %.`,
				origin: published('29 CFR 1910.134(h)(3)(iii)'),
				limit: least,
				value: bar,
				unit: 'bar',
				margin: Number((bar - least).toFixed(9))
			}
		]
	};
}
