import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Autosave } from './autosave.svelte';
import type { Answered } from './send-json';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

function setUp(version = 1) {
	const plan = { task: 'Spray' };
	const sent: Record<string, unknown>[] = [];
	const made = vi.fn();
	let [blocked, next] = [false, null as Answered<{ version: number }> | null];
	const saving = new Autosave(
		{ content: () => ({ ...plan }), blocked: () => blocked, url: () => '/api/hazards/p', made },
		version,
		(_, __, body) => {
			const asked = body as { version: number };
			sent.push(body as Record<string, unknown>);
			const taken = { kind: 'taken' as const, value: { version: asked.version + 1 } };
			return Promise.resolve((next ?? taken) as never);
		}
	);
	return {
		saving,
		plan,
		sent,
		made,
		answer: (one: typeof next) => (next = one),
		block: (on: boolean) => (blocked = on)
	};
}
const wait = (ms: number) => vi.advanceTimersByTimeAsync(ms);

describe('the autosave of a working copy', () => {
	it('sends once, a moment after the last change', async () => {
		const { saving, plan, sent, made } = setUp(0);
		for (const task of ['S', 'Sp', 'Spr']) {
			plan.task = task;
			saving.touch();
			await wait(100);
		}
		expect(saving.state).toBe('changed');
		await wait(800);
		expect(sent).toHaveLength(1);
		expect(sent[0]).toMatchObject({ task: 'Spr', version: 0 });
		expect([saving.state, saving.version]).toEqual(['kept', 1]);
		expect(made).toHaveBeenCalledOnce();
	});

	it('sends the same again under the same id until it arrives', async () => {
		const { saving, sent, answer } = setUp();
		answer({ kind: 'away' });
		saving.touch();
		await wait(800);
		expect(saving.state).toBe('unsent');
		await wait(3100);
		answer(null);
		await wait(3100);
		expect(saving.state).toBe('kept');
		expect(sent.length).toBe(3);
		expect(new Set(sent.map((one) => one.requestId)).size).toBe(1);
	});

	it('does not send what cannot be kept yet', async () => {
		const { saving, sent, block } = setUp();
		block(true);
		saving.touch();
		await wait(5000);
		expect(sent).toHaveLength(0);
		block(false);
		saving.touch();
		await wait(800);
		expect(sent).toHaveLength(1);
	});

	it('stops where somebody else was first, and says where a field is refused', async () => {
		const { saving, sent, answer } = setUp();
		answer({ kind: 'refused', status: 422, message: 'Below zero.', path: 'facts.x' });
		saving.touch();
		await wait(800);
		expect(saving.state).toBe('changed');
		expect(saving.refusal).toEqual({ path: 'facts.x', message: 'Below zero.' });
		answer({ kind: 'refused', status: 409, message: 'Changed meanwhile.', path: null });
		saving.touch();
		await wait(800);
		expect([saving.state, saving.message]).toEqual(['refused', 'Changed meanwhile.']);
		saving.touch();
		await wait(5000);
		expect(sent).toHaveLength(2);
	});

	it('sends at once what was changed when the page goes', async () => {
		const { saving, sent } = setUp();
		saving.touch();
		saving.leave();
		await wait(0);
		expect(sent).toHaveLength(1);
	});
});
