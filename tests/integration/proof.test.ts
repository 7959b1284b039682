import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import { inspectionRun, writeRequest } from '../../src/lib/server/db/schema/index.ts';
import { signRun, startRun } from '../../src/lib/server/inspection/runs.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import { write } from '../../src/lib/server/kernel/write.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { answerAll } from '../support/work.ts';

const own = openYard(undefined, 'test');
const NOW = new Date('2026-11-24T10:00:00Z');
const at = (minutesBefore: number | null): Context => ({
	...own.tech(NOW),
	proof:
		minutesBefore === null
			? null
			: { at: new Date(NOW.getTime() - minutesBefore * 60_000), by: 'pin' }
});

describe('a signature', () => {
	/** An inspection that lacks nothing but its signature. */
	async function answered() {
		const { id: runId } = await startRun(at(0), { id: randomUUID(), tag: 'HM-0001' });
		await answerAll(at(30), runId);
		const requestId = randomUUID();
		const state = async () => {
			const [run] = await own.test.db
				.select()
				.from(inspectionRun)
				.where(eq(inspectionRun.id, runId));
			const taken = await own.test.db
				.select()
				.from(writeRequest)
				.where(eq(writeRequest.id, requestId));
			return { signed: run?.signedAt !== null, taken: taken.length };
		};
		return { sign: (context: Context) => signRun(context, { requestId, runId }), state };
	}

	it('is taken from whoever showed in the last minutes that it is them', async () => {
		const { sign, state } = await answered();
		await expectRefusal(sign(at(10)), 'proof', /Type your PIN to sign the inspection/);
		expect(await state()).toEqual({ signed: false, taken: 0 });
		// The same request goes out again once they did.
		await sign(at(9));
		expect(await state()).toEqual({ signed: true, taken: 1 });
	});

	it('is taken from no program', async () => {
		const { sign, state } = await answered();
		await expectRefusal(sign(at(null)), 'forbidden', /A program may not sign/);
		expect(await state()).toEqual({ signed: false, taken: 0 });
	});

	it('is asked for by the catalogue: no service can forget it', async () => {
		for (const [action, payload] of [
			['repair.released', { repair: 'clean', defects: [] }],
			['item.retired', { repair: 'retire', defects: [] }],
			['plan.approved', { task: 'Spray', edition: 1, expiresOn: '2029-02-23' }],
			['plan.flag-cleared', { flag: 'Smelled.', why: 'Measured.' }],
			['procedure.edition', { version: 2, from: 1, reason: 'Shorter', changes: [] }]
		] as const)
			await expectRefusal(
				write(at(60), 'view', { id: randomUUID(), content: action }, ({ record }) => {
					record(action, { of: randomUUID(), payload: payload as never });
					return Promise.resolve(null);
				}),
				'proof',
				/Type your PIN/
			);
	});

	it('leaves answers and everything else as easy as it was', async () => {
		await write(at(600), 'view', { id: randomUUID(), content: null }, ({ record }) => {
			record('item.moved', { of: randomUUID(), payload: { from: 'Shed', to: 'Store' } });
			return Promise.resolve(null);
		});
	});
});
