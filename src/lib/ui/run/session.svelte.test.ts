import { describe, expect, it } from 'vitest';
import { procedureFor } from '$core/data/procedures';
import { RunSession, asGiven, type GivenAnswer, type Hold, type RunSender } from './session.svelte';

const HALF = procedureFor('half-mask');
const SET = procedureFor('ba-set');

/** A sender that keeps everything to itself, as a drill does. */
function keeping() {
	const waiting: GivenAnswer[] = [];
	const holds: (Hold | null)[] = [];
	let signed = 0;
	let reach: string | null | undefined = null;
	const sender: RunSender = {
		get waiting() {
			return [...waiting];
		},
		get signing() {
			return signed > 0;
		},
		answer: (answer) => void waiting.push(asGiven({ ...answer })),
		sign: () => void signed++,
		hold: () => Promise.resolve(reach),
		ownHold: (hold) => void holds.push(hold)
	};
	return { sender, waiting, holds, signed: () => signed, reach: (r: typeof reach) => (reach = r) };
}

function begin({ procedure = HALF, closed = false, worked = false } = {}) {
	const kept = keeping();
	const session = new RunSession(
		() => ({ id: 'r', procedure, closed, worked, timers: [], limits: { ratedBar: 300 } }),
		kept.sender,
		() => 1_000,
		[]
	);
	return { session, ...kept };
}

/** A key as the page hears it. */
function key(name: string, inside = '') {
	let used = false;
	const event = {
		key: name,
		ctrlKey: false,
		metaKey: false,
		altKey: false,
		target: { closest: (selector: string) => (inside && selector.includes(inside) ? {} : null) },
		preventDefault: () => (used = true)
	};
	return { event: event as unknown as KeyboardEvent, used: () => used };
}

describe('a running inspection', () => {
	it('is answered by keys alone and signed', () => {
		const { session, waiting, signed } = begin();
		session.ready();
		for (const step of HALF.steps) session.keys(key(step.ifFitted ? '3' : '1').event);
		expect(waiting).toHaveLength(HALF.steps.length);
		expect(session.run.complete).toBe(true);
		session.keys(key('Enter').event);
		expect(signed()).toBe(1);
		session.keys(key('Enter').event);
		expect(signed()).toBe(1);
	});

	it('keeps keys that come before what the device kept is here', () => {
		const { session, waiting } = begin();
		session.keys(key('3').event);
		expect(waiting).toHaveLength(0);
		session.ready();
		expect(waiting.map((one) => one.value)).toEqual(['not fitted']);
	});

	it('asks which code, and gives the one of the number', () => {
		const { session, waiting } = begin();
		session.ready();
		session.keys(key('2').event);
		expect(session.choosing).toBe(true);
		const [first] = session.step?.rejects ?? [];
		session.keys(key('1').event);
		expect(waiting[0]).toMatchObject({ value: 'reject', code: first });
		expect(session.choosing).toBe(false);
		expect(session.found).toHaveLength(1);
	});

	it('takes the last answer back, from wherever it stands', () => {
		const { session, waiting } = begin();
		session.ready();
		session.keys(key('3').event);
		session.keys(key('u').event);
		expect(waiting.map((one) => one.value)).toEqual(['not fitted', 'cleared']);
		expect(session.stepKey).toBe(HALF.steps[0]?.key);
		expect(session.run.done).toBe(0);
	});

	it('leaves keys to fields, and with a modifier to the browser', () => {
		const { session, waiting } = begin();
		session.ready();
		session.keys(key('3', 'input').event);
		const copied = key('3');
		(copied.event as { ctrlKey: boolean }).ctrlKey = true;
		session.keys(copied.event);
		expect(waiting).toHaveLength(0);
		const unknown = key('q');
		session.keys(unknown.event);
		expect(unknown.used()).toBe(false);
	});

	it('takes no answer once it is closed', () => {
		const { session, waiting } = begin({ closed: true });
		session.ready();
		session.keys(key('3').event);
		session.give('good');
		expect(waiting).toHaveLength(0);
	});

	it('goes along the line by arrows and to a station', () => {
		const { session } = begin();
		session.ready();
		session.keys(key('ArrowRight').event);
		expect(session.stepKey).toBe(HALF.steps[1]?.key);
		session.keys(key('ArrowLeft').event);
		session.keys(key('ArrowLeft').event);
		expect(session.stepKey).toBe(HALF.steps.at(-1)?.key);
		session.goTo('harness');
		expect(session.step?.station).toBe('harness');
	});

	it('judges a reading, and times a hold itself where nobody is reached', async () => {
		const { session, waiting, holds, reach } = begin({ procedure: SET });
		session.ready();
		const hold = SET.steps.find((s) => s.reading?.kind === 'hold');
		session.stepKey = hold?.key ?? null;
		reach(undefined);
		await session.startHold(295);
		expect(session.timer).toMatchObject({ step: hold?.key, startReading: 295 });
		expect(holds[0]?.startReading).toBe(295);
		session.read({ start: 295, end: 280, seconds: 60 });
		expect(waiting.at(-1)).toMatchObject({ value: 'reject', step: hold?.key });
		expect(session.ownHold).toBeNull();
		session.stepKey = hold?.key ?? null;
		reach('This step takes no hold.');
		await session.startHold(295);
		expect(session.refused).toBe('This step takes no hold.');
	});

	it('leaves a step for a second person to another than who started', () => {
		const steps = HALF.steps.map((s, i) => ({ ...s, secondPerson: i === 0 }));
		const { session, waiting } = begin({ procedure: { ...HALF, steps }, worked: true });
		session.ready();
		expect(session.forAnother).toBe(true);
		session.keys(key('3').event);
		expect(waiting).toHaveLength(0);
	});

	it('leaves it to another than who answered any step, from the first answer on', () => {
		const steps = HALF.steps.map((s, i) => ({ ...s, secondPerson: i === 1 }));
		const { session, waiting } = begin({ procedure: { ...HALF, steps } });
		session.ready();
		session.goTo(steps[1]?.station ?? '');
		session.stepKey = steps[1]?.key ?? null;
		expect(session.forAnother).toBe(false);
		session.stepKey = steps[0]?.key ?? null;
		session.keys(key(steps[0]?.ifFitted ? '3' : '1').event);
		expect(waiting).toHaveLength(1);
		expect(session.stepKey).toBe(steps[1]?.key);
		expect(session.forAnother).toBe(true);
	});
});
