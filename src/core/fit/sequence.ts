import { commonPractice, InputError, type Reason } from '../verdict.ts';
import { exerciseFactor, LEAST_AMBIENT_PER_CM3, MOST_FACTOR } from './fit-factor.ts';
import type { FitExercise, FitProtocol } from './protocols.ts';

/** What the counter samples for a while: the room, or the air in the mask. */
export interface FitStep {
	line: 'room' | 'mask';
	/** Movement that is made meanwhile; '' while the room is sampled between two of them. */
	exercise: string;
	seconds: number;
}

/** One second of the counter. */
export interface CounterReading {
	/** Since the begin of the test, s, by the clock of the counter. */
	s: number;
	/** How often it was told to begin somewhere: a step that is made again is another run. */
	run: number;
	/** Index of the step in the sequence. */
	step: number;
	perCm3: number;
	/** What flows through its tube, as a share of what should. */
	flow: number;
}

/** How long the room is sampled between two exercises. Common practice; the maker of the counter decides. */
export const ROOM_S = 9;
/** What a tube still holds of the other air after a change of lines is not counted. Common practice. */
export const PURGE_S = 4;
/** Below that share of its flow the tube is pinched or clogged, and what is counted is too little. Common practice. */
export const LEAST_FLOW = 0.8;
/** By how much the room may change over one exercise before its mean says nothing. Common practice. */
export const MOST_ROOM_RATIO = 2;
/** Seconds of a step that may be missing for it to count as whole. */
const MISSING_S = 1.5;

/** What a counter goes through for a protocol, in order. */
export function sequenceOf({ exercises, room }: FitProtocol): FitStep[] {
	const mask = ({ key, seconds }: FitExercise, less = 0): FitStep => ({
		line: 'mask',
		exercise: key,
		seconds: seconds - less
	});
	if (room === 'each exercise') {
		const between: FitStep = { line: 'room', exercise: '', seconds: ROOM_S };
		return [between, ...exercises.flatMap((one) => [mask(one), between])];
	}
	const last = exercises.length - 1;
	return [
		{ line: 'room', exercise: exercises[0]?.key ?? '', seconds: room.firstS },
		...exercises.map((one, i) =>
			mask(one, (i === 0 ? room.firstS : 0) + (i === last ? room.lastS : 0))
		),
		{ line: 'room', exercise: exercises[last]?.key ?? '', seconds: room.lastS }
	];
}

/** How long a sequence takes, s. */
export const sequenceSeconds = (steps: readonly FitStep[]): number =>
	steps.reduce((sum, { seconds }) => sum + seconds, 0);

const maskStep = (protocol: FitProtocol, key: string): number => {
	const at = sequenceOf(protocol).findIndex(
		({ line, exercise }) => line === 'mask' && exercise === key
	);
	if (at < 0) throw new InputError('exercise', `${protocol.name} has no exercise “${key}”.`);
	return at;
};

/** Where a counter goes on from to make an exercise again, with what follows it. @throws InputError at exercise */
export function againFrom(protocol: FitProtocol, key: string): number {
	const at = maskStep(protocol, key);
	// The room is sampled before it where it is sampled each time, and where the exercise is the first.
	return protocol.room === 'each exercise' || at === 1 ? at - 1 : at;
}

/** Where a counter goes on from to leave an exercise for later. @throws InputError at exercise */
export const skipFrom = (protocol: FitProtocol, key: string): number => maskStep(protocol, key) + 1;

/**
 * Steps that are still to be gone through at the end of a sequence, for the first exercise that was left out; null
 * where none was. What is at fault is not tried again by itself.
 */
export function stepsLeft(
	protocol: FitProtocol,
	measured: readonly ExerciseMeasured[]
): { from: number; to: number } | null {
	const missing = measured.find(({ state }) => state === 'to come');
	if (!missing) return null;
	const from = againFrom(protocol, missing.key);
	const last = sequenceOf(protocol).length - 1;
	return { from, to: protocol.room === 'each exercise' ? from + 2 : last };
}

/** What is known of one exercise. */
export interface ExerciseMeasured {
	key: string;
	state: 'to come' | 'under way' | 'measured' | 'at fault';
	/** Of a measured one; unrounded. */
	factor: number | null;
	/** The counter cannot tell more than that. */
	capped: boolean;
	/** Of a measured one, per cm³. */
	counts: { ambientBefore: number; ambientAfter: number; inMask: number } | null;
	/** Why it is at fault. */
	reason: Reason | null;
	/** How often it was begun. */
	tries: number;
}

/** One step as it was gone through. */
interface StepRun {
	step: number;
	run: number;
	readings: CounterReading[];
	whole: boolean;
}

function runsOf(steps: readonly FitStep[], readings: readonly CounterReading[]): StepRun[] {
	const runs: StepRun[] = [];
	for (const reading of readings) {
		const last = runs.at(-1);
		if (last?.step === reading.step && last.run === reading.run) last.readings.push(reading);
		else runs.push({ step: reading.step, run: reading.run, readings: [reading], whole: false });
	}
	for (const run of runs) {
		const [from, to] = [run.readings[0]?.s ?? 0, run.readings.at(-1)?.s ?? 0];
		// A reading stands for the second that ends with it.
		run.whole = to - from + 1 >= (steps[run.step]?.seconds ?? Infinity) - MISSING_S;
	}
	return runs;
}

/** What a step counted on average, without what its tube still held of the other line. */
function meanOf(run: StepRun, purged: boolean): number {
	const from = (run.readings[0]?.s ?? 0) + (purged ? PURGE_S : 0);
	const counted = run.readings.filter(({ s }) => s >= from);
	return counted.reduce((sum, { perCm3 }) => sum + perCm3, 0) / Math.max(1, counted.length);
}

const fault = (rule: string, text: string): Reason => ({
	rule,
	text,
	origin: commonPractice('the maker of the counter decides')
});

/**
 * What the readings of a counter say of each exercise. Of one that was made more than once the last whole time counts;
 * what was counted through a pinched tube, in a room with too little to count or one that changed meanwhile, does not.
 */
export function measuredBy(
	protocol: FitProtocol,
	readings: readonly CounterReading[],
	limits: { leastRoom?: number; mostFactor?: number } = {}
): ExerciseMeasured[] {
	const { leastRoom = LEAST_AMBIENT_PER_CM3, mostFactor = MOST_FACTOR } = limits;
	const steps = sequenceOf(protocol);
	const runs = runsOf(steps, readings);
	const lineOf = (run: StepRun | undefined) => (run ? steps[run.step]?.line : undefined);
	const isRoom = (run: StepRun) => lineOf(run) === 'room';
	/** The tube was on the other line before, or on none. */
	const purged = (i: number) => lineOf(runs[i]) !== lineOf(runs[i - 1]);
	const mean = (i: number) => {
		const run = runs[i];
		return run ? meanOf(run, purged(i)) : NaN;
	};
	const each = protocol.room === 'each exercise';

	return protocol.exercises.map(({ key }): ExerciseMeasured => {
		const own = runs.flatMap((run, i) =>
			lineOf(run) === 'mask' && steps[run.step]?.exercise === key ? [i] : []
		);
		const at = own.findLast((i) => runs[i]?.whole) ?? own.at(-1);
		const open: ExerciseMeasured = {
			key,
			state: own.length ? 'under way' : 'to come',
			factor: null,
			capped: false,
			counts: null,
			reason: null,
			tries: own.length
		};
		if (at === undefined || !runs[at]?.whole) {
			// Left in the middle for something else.
			const left = at !== undefined && at < runs.length - 1;
			return left ? { ...open, state: 'to come' } : open;
		}
		const before = each
			? runs.findLastIndex((run, i) => i < at && isRoom(run) && run.whole)
			: runs.findIndex((run) => isRoom(run) && run.whole && run.step === 0);
		const after = each
			? runs.findIndex((run, i) => i > at && isRoom(run) && run.whole)
			: runs.findLastIndex(
					(run, i) => i > at && isRoom(run) && run.whole && run.step === steps.length - 1
				);
		const faulty = (reason: Reason): ExerciseMeasured => ({ ...open, state: 'at fault', reason });
		if ([before, at, after].some((i) => runs[i]?.readings.some(({ flow }) => flow < LEAST_FLOW)))
			return faulty(
				fault(
					'fit.flow',
					'The tube of the counter was pinched or clogged: too little went through it, and what was counted is too little. Clear it and make the exercise again.'
				)
			);
		if (before < 0 || after < 0) return open;
		const counts = { ambientBefore: mean(before), ambientAfter: mean(after), inMask: mean(at) };
		const least = Math.min(counts.ambientBefore, counts.ambientAfter);
		const most = Math.max(counts.ambientBefore, counts.ambientAfter);
		if (least < leastRoom)
			return faulty({
				...fault(
					'fit.ambient-fell',
					`${Math.round(least)} particles in each cm³ of the room beside this exercise, ${leastRoom} at least: raise them and make it again.`
				),
				limit: leastRoom,
				value: least,
				unit: '1/cm³',
				margin: least - leastRoom
			});
		if (most > MOST_ROOM_RATIO * least)
			return faulty(
				fault(
					'fit.ambient-changed',
					`The room went from ${Math.round(counts.ambientBefore)} to ${Math.round(counts.ambientAfter)} particles in each cm³ over this exercise: its mean says nothing. Let it settle and make it again.`
				)
			);
		return { ...open, state: 'measured', counts, ...exerciseFactor(counts, mostFactor) };
	});
}

/** Factors of what was measured, by exercise. */
export const factorsOf = (measured: readonly ExerciseMeasured[]): Record<string, number> =>
	Object.fromEntries(
		measured.flatMap(({ key, factor }) => (factor === null ? [] : [[key, factor] as const]))
	);

/** Where a counter stands in its sequence. */
export interface StepNow extends FitStep {
	index: number;
	leftS: number;
}

/** The step of the last reading, and how long it goes on; null before the first reading. */
export function stepNow(
	steps: readonly FitStep[],
	readings: readonly CounterReading[]
): StepNow | null {
	const last = readings.at(-1);
	const step = last && steps[last.step];
	if (!last || !step) return null;
	const begun = readings.find(({ run, step: at }) => run === last.run && at === last.step)?.s ?? 0;
	return { ...step, index: last.step, leftS: Math.max(0, step.seconds - (last.s - begun + 1)) };
}
