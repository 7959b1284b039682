import { InputError } from '../verdict.ts';
import {
	absoluteBar,
	ATMOSPHERE_BAR,
	densityAt,
	FREE_AIR_C,
	FREE_AIR_MOL_PER_L,
	isothermOf,
	pressureAt
} from './air-state.ts';
import { checkVolume } from './content.ts';

/** Minutes that a wearer is out before the warning. Site default. */
export const MARGIN_MIN = 10;
/** Consumption that a wearer without uses on record is planned with, L/min. Common practice: moderate to heavy work. */
export const EXPECTED_L_PER_MIN = 50;
/** Nobody at work takes less for long, L/min; a lower figure is a gauge that was read too coarsely. Common practice. */
const LEAST_L_PER_MIN = 20;
/** Telemetry that is silent for longer is lost, ms. Site default. */
export const LOST_AFTER_MS = 30_000;
/** Readings of one pressure differ by this, bar. Common practice. */
const NOISE_BAR = 5;
/** More than a person breathes, L/min: a reading that asks for it is a jump until the next one agrees. Common practice. */
const MOST_L_PER_MIN = 250;
/** A rate is measured over at least this long, and anew over about this long, ms. Common practice. */
const [RATE_MS, RECENT_MS] = [120_000, 300_000];
const MS_PER_MIN = 60_000;
/** Planned times end here, ms: a day. */
const LONGEST_MS = 24 * 60 * MS_PER_MIN;

export interface EntryReading {
	/** Milliseconds of the server's clock. */
	at: number;
	/** Gauge. */
	bar: number;
	by: 'hand' | 'telemetry';
	/** It takes the place of earlier ones that were wrong. */
	corrects?: boolean;
}

/** A wearer who went in. */
export interface EntryFacts {
	/** All cylinders of the set together. */
	waterVolumeL: number;
	startBar: number;
	startedAt: number;
	warningBar: number;
	marginMin: number;
	/** What the wearer takes until it is measured. */
	expectedLPerMin: number;
	telemetry: boolean;
	/** In the order they were taken. */
	readings: readonly EntryReading[];
}

export interface EntryPlan {
	/** The last reading that counts. */
	bar: number;
	at: number;
	by: EntryReading['by'] | 'start';
	lPerMin: number;
	/** Where the consumption comes from. */
	measured: boolean;
	/** Turn here at the latest, when the way out is as long as the way in. */
	turnBar: number;
	/** Moments of the server's clock at the consumption above. */
	turnAt: number;
	outBy: number;
	warnAt: number;
	emptyAt: number;
	/** When telemetry counts as lost if nothing comes; null without it. */
	lostAt: number | null;
	/** A reading that does not fit the ones before it and that no other agrees with. */
	doubt: EntryReading | null;
	waterVolumeL: number;
}

/** Free litres in a volume at a gauge pressure. */
const litresAt = (volumeL: number, bar: number) =>
	(volumeL * densityAt(isothermOf(FREE_AIR_C), absoluteBar(bar))) / FREE_AIR_MOL_PER_L;

/** Gauge pressure at which a volume holds so many free litres. */
const barWith = (volumeL: number, litres: number) =>
	Math.max(
		0,
		pressureAt(isothermOf(FREE_AIR_C), (Math.max(0, litres) * FREE_AIR_MOL_PER_L) / volumeL) -
			ATMOSPHERE_BAR
	);

/** Gauge pressure some time after a reading, at an even consumption. */
export function barAfter(plan: EntryPlan, now: number): number {
	const used = (plan.lPerMin * Math.max(0, now - plan.at)) / MS_PER_MIN;
	return barWith(plan.waterVolumeL, litresAt(plan.waterVolumeL, plan.bar) - used);
}

interface Sorted {
	good: EntryReading[];
	doubt: EntryReading | null;
}

/** Leaves out what cannot be: a pressure that rises, or is sent as fallen faster than air can be breathed, until another agrees. */
function sortOut(facts: EntryFacts): Sorted {
	let good: EntryReading[] = [{ at: facts.startedAt, bar: facts.startBar, by: 'hand' }];
	let doubt: EntryReading | null = null;
	for (const reading of facts.readings) {
		if (reading.corrects) {
			good = [...good.filter((r) => r.bar >= reading.bar - NOISE_BAR), reading];
			doubt = null;
			continue;
		}
		const last = good.at(-1);
		// Who says that less is left is believed at once: it may be a burst hose.
		const told = reading.by === 'hand' && last !== undefined && reading.bar <= last.bar;
		if (!last || told || fits(facts.waterVolumeL, last, reading)) {
			good.push(reading);
			doubt = null;
		} else if (doubt && reading.bar < last.bar && fits(facts.waterVolumeL, doubt, reading)) {
			// Two that agree are believed where they say less is left.
			good.push(doubt, reading);
			doubt = null;
		} else doubt = reading;
	}
	return { good, doubt };
}

function fits(volumeL: number, before: EntryReading, after: EntryReading): boolean {
	if (after.bar > before.bar + NOISE_BAR) return false;
	const minutes = Math.max(0, after.at - before.at) / MS_PER_MIN;
	const fall = litresAt(volumeL, before.bar) - litresAt(volumeL, after.bar);
	return (
		fall <=
		MOST_L_PER_MIN * minutes +
			litresAt(volumeL, before.bar) -
			litresAt(volumeL, Math.max(0, before.bar - NOISE_BAR))
	);
}

/** The larger of what was taken over the whole and lately, L/min; null where it was not long enough to say. */
function rateOf(volumeL: number, good: readonly EntryReading[]): number | null {
	const [first, last] = [good[0], good.at(-1)];
	if (!first || !last) return null;
	const over = (from: EntryReading) =>
		((litresAt(volumeL, from.bar) - litresAt(volumeL, last.bar)) * MS_PER_MIN) /
		(last.at - from.at);
	if (last.at - first.at < RATE_MS) return null;
	const lately = good.findLast((r) => last.at - r.at >= RECENT_MS) ?? first;
	return Math.max(over(first), over(lately), LEAST_L_PER_MIN);
}

/**
 * When a wearer turns, is out, is warned and has nothing left, from what was read. Until a consumption can be
 * measured the larger of the expected and of what the first readings say counts.
 * @throws InputError at startBar with nothing above warning and margin, at warningBar, marginMin or waterVolumeL
 */
export function planEntry(facts: EntryFacts): EntryPlan {
	const { waterVolumeL, startBar, warningBar, marginMin, startedAt } = facts;
	checkVolume(waterVolumeL);
	absoluteBar(startBar, undefined, 'startBar');
	absoluteBar(warningBar, undefined, 'warningBar');
	if (!(marginMin >= 0 && marginMin <= 60))
		throw new InputError('marginMin', 'A margin from 0 to 60 minutes.');
	if (!(facts.expectedLPerMin >= 5 && facts.expectedLPerMin <= MOST_L_PER_MIN))
		throw new InputError('expectedLPerMin', `A consumption from 5 to ${MOST_L_PER_MIN} L/min.`);
	const { good, doubt } = sortOut(facts);
	const last = good.at(-1) ?? { at: startedAt, bar: startBar, by: 'hand' as const };
	const rate = rateOf(waterVolumeL, good);
	const lPerMin = rate ?? facts.expectedLPerMin;
	const [atWarning, now] = [litresAt(waterVolumeL, warningBar), litresAt(waterVolumeL, last.bar)];
	const kept = barWith(waterVolumeL, atWarning + lPerMin * marginMin);
	const turnBar = startBar - Math.max(0, startBar - kept) / 2;
	/** A whole millisecond, rather the earlier one. */
	const when = (litresLeft: number) => {
		const ms = Math.max(0, ((now - litresLeft) / lPerMin) * MS_PER_MIN);
		return Math.floor(last.at + Math.min(LONGEST_MS, ms));
	};
	const warnAt = when(atWarning);
	const heardAt = facts.readings.findLast((r) => r.by === 'telemetry')?.at ?? startedAt;
	return {
		bar: last.bar,
		at: last.at,
		by: good.length > 1 ? last.by : 'start',
		lPerMin,
		measured: rate !== null,
		turnBar,
		turnAt: when(litresAt(waterVolumeL, turnBar)),
		outBy: Math.max(last.at, warnAt - marginMin * MS_PER_MIN),
		warnAt,
		emptyAt: when(0),
		lostAt: facts.telemetry ? heardAt + LOST_AFTER_MS : null,
		doubt,
		waterVolumeL
	};
}

/** Refuses an entry that leaves nothing to work with. @throws InputError at startBar */
export function checkStart(facts: EntryFacts): EntryPlan {
	const plan = planEntry(facts);
	if (plan.outBy <= facts.startedAt)
		throw new InputError(
			'startBar',
			`${facts.startBar} bar leaves nothing above the warning at ${facts.warningBar} bar and ${facts.marginMin} min of margin.`
		);
	return plan;
}

export type AlarmKind = 'check gauge' | 'telemetry lost' | 'turn back' | 'be out' | 'warning';
export interface Alarm {
	kind: AlarmKind;
	/** From this moment on. */
	at: number;
	/** Tells one alarm of a kind from the next. */
	key: string;
}

/**
 * The alarms of a wearer, those to come as well: each screen and the server count them down alike.
 * @param turnedAt when the team turned; null: it has not
 */
export function alarmsOf(plan: EntryPlan, turnedAt: number | null): Alarm[] {
	const alarms: Alarm[] = [
		{ kind: 'be out', at: plan.outBy, key: 'be out' },
		{ kind: 'warning', at: plan.warnAt, key: 'warning' }
	];
	if (turnedAt === null) alarms.push({ kind: 'turn back', at: plan.turnAt, key: 'turn back' });
	if (plan.lostAt !== null)
		alarms.push({ kind: 'telemetry lost', at: plan.lostAt, key: `lost ${plan.lostAt}` });
	if (plan.doubt)
		alarms.push({ kind: 'check gauge', at: plan.doubt.at, key: `gauge ${plan.doubt.at}` });
	return alarms.sort((a, b) => a.at - b.at);
}

/** An alarm that was written down, with the initials of who has seen it; null: nobody yet. */
export interface RaisedAlarm extends Alarm {
	seenBy: string | null;
}

/**
 * The alarms that a screen shows now: those that have fallen due, and those that were raised, until somebody has
 * seen them, whatever was read since.
 */
export function alarmsToShow(
	plan: EntryPlan,
	turnedAt: number | null,
	raised: readonly RaisedAlarm[],
	now: number
): Alarm[] {
	const known = new Set(raised.map((alarm) => alarm.key));
	return [
		...raised.filter((alarm) => alarm.seenBy === null),
		...alarmsOf(plan, turnedAt).filter((alarm) => alarm.at <= now && !known.has(alarm.key))
	].sort((a, b) => a.at - b.at);
}

/** Steps of an entry, each of which leaves the ones before it behind. */
const STEPS: readonly AlarmKind[] = ['turn back', 'be out', 'warning'];

/** Alarms of one wearer as they are called out: who is to be out is no longer told to turn back. */
export function callOut(alarms: readonly Alarm[]): (Alarm & { covers: string[] })[] {
	const furthest = Math.max(-1, ...alarms.map((alarm) => STEPS.indexOf(alarm.kind)));
	const behind = alarms.filter(
		(alarm) => STEPS.includes(alarm.kind) && STEPS.indexOf(alarm.kind) < furthest
	);
	return alarms
		.filter((alarm) => !behind.includes(alarm))
		.map((alarm) => ({
			...alarm,
			covers: STEPS.includes(alarm.kind) ? behind.map((one) => one.key) : []
		}));
}

/** The earliest turn-back of a team governs it. @returns null for nobody */
export const teamTurnsAt = (plans: readonly EntryPlan[]): number | null =>
	plans.length ? Math.min(...plans.map((plan) => plan.turnAt)) : null;
