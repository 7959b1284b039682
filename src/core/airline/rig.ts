import type { SourceState } from '../air/source.ts';
import { judgeDue, type DueRule } from '../plan/due.ts';
import type { Day } from '../plan/calendar.ts';
import {
	commonPractice,
	InputError,
	maker,
	published,
	type Reason,
	type Verdict
} from '../verdict.ts';
import { judgeHose, type HoseInput } from './hose.ts';

/** A CO alarm sounds at this, ppm. Published: 29 CFR 1910.134(i)(7); from memory. */
export const CO_ALARM_PPM = 10;
/** Days between tests of an alarm where its maker says nothing. Common practice: monthly. */
export const ALARM_TEST_DAYS = 30;
const SORBENT_RULE = published('29 CFR 1910.134(i)(5)(iv)');
const ALARM_RULE = published('29 CFR 1910.134(i)(7)');
/** Days ahead at which a change or a test counts as due. Site default. */
const WINDOW_DAYS = 7;

export const RIG_ALARMS = ['CO', 'high temperature', 'none'] as const;
export type RigAlarm = (typeof RIG_ALARMS)[number];

/** An airline rig as it stands. */
export interface RigFacts {
	source: SourceState & { name: string; oilLubricated: boolean; compressor: boolean };
	/** Months that its maker gives the sorbent, and when it was last changed; null: no dryer or sorbent in it. */
	sorbent: { everyMonths: number; changedOn: Day | null } | null;
	alarm: {
		kind: RigAlarm;
		atPpm: number | null;
		everyDays: number;
		testedOn: Day | null;
		passed: boolean;
	};
	hose: HoseInput;
	/** How many may be on it. */
	outlets: number;
	wearers: number;
}

/** Whether an airline rig may be breathed from on a day: source, sorbent, alarm, outlets, pressure at the end. */
export function judgeRig(
	facts: RigFacts,
	asOf: Day
): Verdict<'pass' | 'fail'> & {
	outletBar: number | null;
	/** The reasons that fail it. */
	against: Reason[];
} {
	const against: Reason[] = [];
	const well: Reason[] = [];
	const put = (good: boolean, ...reasons: Reason[]) => (good ? well : against).push(...reasons);
	const { source, sorbent, alarm } = facts;
	put(
		source.outcome === 'in force',
		...source.reasons.map((r) => ({ ...r, text: `${source.name}: ${r.text}` }))
	);
	if (sorbent) {
		const due = tagged('Sorbent and filters', { months: sorbent.everyMonths }, sorbent.changedOn);
		put(due.state !== 'overdue', ...due.reasons);
	}
	if (source.compressor && source.oilLubricated && alarm.kind === 'none')
		put(false, {
			rule: 'rig.alarm.missing',
			text: 'An oil-lubricated compressor has a CO alarm, or a high-temperature alarm with frequent CO tests.',
			origin: ALARM_RULE
		});
	if (alarm.kind !== 'none') {
		const due = tagged(`${alarm.kind} alarm tested`, { days: alarm.everyDays }, alarm.testedOn);
		put(due.state !== 'overdue', ...due.reasons);
		if (alarm.testedOn && !alarm.passed)
			put(false, {
				rule: 'rig.alarm.failed',
				text: 'The alarm failed its last test.',
				origin: ALARM_RULE
			});
	}
	if (alarm.kind === 'CO') {
		const atPpm = alarm.atPpm ?? CO_ALARM_PPM;
		put(atPpm <= CO_ALARM_PPM, {
			rule: 'rig.alarm.level',
			text: `The CO alarm sounds at ${atPpm} ppm, ${CO_ALARM_PPM} at most.`,
			origin: ALARM_RULE,
			limit: CO_ALARM_PPM,
			value: atPpm,
			unit: 'ppm',
			margin: CO_ALARM_PPM - atPpm
		});
	}
	put(facts.wearers <= facts.outlets, {
		rule: 'rig.outlets',
		text: `${facts.wearers} on ${facts.outlets} outlets.`,
		origin: maker('outlets of the rig'),
		limit: facts.outlets,
		value: facts.wearers,
		margin: facts.outlets - facts.wearers
	});
	let outletBar: number | null = null;
	try {
		const hose = judgeHose(facts.hose);
		outletBar = hose.outletBar;
		for (const reason of hose.reasons) put((reason.margin ?? 0) >= 0, reason);
	} catch (error) {
		if (!(error instanceof InputError)) throw error;
		put(false, { rule: 'rig.hose', text: error.message, origin: commonPractice() });
	}
	return {
		outcome: against.length ? 'fail' : 'pass',
		reasons: [...against, ...well],
		outletBar,
		against
	};

	function tagged(name: string, every: DueRule['every'], last: Day | null) {
		const origin = name.startsWith('Sorbent') ? SORBENT_RULE : ALARM_RULE;
		const due = judgeDue({ rules: [{ name, every, window: WINDOW_DAYS, origin }], last, asOf });
		return last === null
			? {
					...due,
					reasons: [{ rule: 'rig.never', text: `${name}: never on record.`, origin }]
				}
			: due;
	}
}
