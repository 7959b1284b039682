import { afterAll, describe, expect, it } from 'vitest';
import type { ItemTable } from '../../src/core/register/import.ts';
import { InputError } from '../../src/core/verdict.ts';
import { closeHeavy, heavy } from '../../src/lib/server/jobs/heavy.ts';
import { expectRefusal } from '../support/refusal.ts';

afterAll(closeHeavy);

const table = (rows: number) =>
	new TextEncoder().encode(
		`tag,model,place\n${Array.from({ length: rows }, (_, i) => `HM-${10_000 + i},T1,Shed`).join('\n')}`
	);
const register = {
	models: [{ id: 'm', name: 'T1', family: 'half-mask' }],
	places: [{ id: 'p', name: 'Shed' }],
	tags: ['HM-10001']
};

describe('what is worked out on a thread of its own', () => {
	it('comes back as it would have been here, bad input located', async () => {
		const { parts, count, faults } = await heavy('read items', { file: table(3), register });
		expect(count).toBe(2);
		const items = parts.flatMap((part) => JSON.parse(part) as ItemTable['items']);
		expect(items.map(({ tag, model, place }) => [tag, model.id, place.id])).toEqual([
			['HM-10000', 'm', 'p'],
			['HM-10002', 'm', 'p']
		]);
		expect(faults).toMatchObject([{ row: 3, column: 'tag' }]);
		expect(await heavy('calculate', { name: 'hose', input: {} })).toMatchObject({
			ok: false,
			value: { error: { code: 'invalid_input' } }
		});
		await expect(
			heavy('read items', { file: new Uint8Array([0x50, 0x4b, 3, 4]), register })
		).rejects.toThrow(InputError);
	});

	it('leaves this thread free meanwhile', async () => {
		let turns = 0;
		const turning = setInterval(() => turns++, 1);
		await heavy('read items', { file: table(50_000), register });
		clearInterval(turning);
		// Worked out here, there would be no turn in between.
		expect(turns).toBeGreaterThan(5);
	});

	it('is ended where it takes too long, and the next goes on as if nothing had been', async () => {
		const long = heavy('read items', { file: table(50_000), register }, 1);
		await expectRefusal(long, 'too much', /takes longer/);
		expect((await heavy('read items', { file: table(2), register })).rows).toBe(2);
	});

	it('asks the many who come at once to come again', async () => {
		const asked = await Promise.allSettled(
			Array.from({ length: 120 }, () => heavy('read items', { file: table(2000), register }))
		);
		const refused = asked.filter((one) => one.status === 'rejected');
		expect(asked.length - refused.length).toBe(64);
		for (const one of refused) expect(one.reason).toMatchObject({ kind: 'busy' });
	});
});
