import { eq, isNull } from 'drizzle-orm';
import fc from 'fast-check';
import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { BROUGHT_TO } from '../../src/core/custody/answers.ts';
import { mayMove, type Where, WHERES } from '../../src/core/custody/custody.ts';
import { NOTICED } from '../../src/core/custody/noticed.ts';
import { FAMILIES } from '../../src/core/data/families.ts';
import { stateOn } from '../../src/core/readiness/findings.ts';
import {
	beginBatch,
	giveUpBatch,
	intoBatch,
	stepBatch
} from '../../src/lib/server/care/batches.ts';
import { lookOver } from '../../src/lib/server/care/look-over.ts';
import { openStock } from '../../src/lib/server/care/stock.ts';
import { bringItem } from '../../src/lib/server/custody/bring-back.ts';
import { returnItem } from '../../src/lib/server/custody/returns.ts';
import { itemsNotOnce } from '../../src/lib/server/db/queries/custody.ts';
import { statesByPlace } from '../../src/lib/server/db/queries/stock.ts';
import {
	custody,
	handOut,
	item,
	itemReturn,
	itemState,
	washBatch
} from '../../src/lib/server/db/schema/index.ts';
import { handOutItems } from '../../src/lib/server/handout/hand-out.ts';
import { verifyChain } from '../../src/lib/server/kernel/chain.ts';
import { Refusal } from '../../src/lib/server/kernel/refusal.ts';
import { openYard } from '../support/database.ts';
import { approvedPlan, fitted, modelOf } from '../support/loop.ts';
import { addPiece, inspected } from '../support/yard.ts';

const TAGS: string[] = [];
const own = openYard(async ({ test, yard }) => {
	for (const [i, { family }] of FAMILIES.entries()) {
		const tag = `XX-${100 + i}`;
		await addPiece(test, yard, family, tag);
		TAGS.push(tag);
	}
	TAGS.push('HM-0001', 'HM-0002');
	await inspected(test, yard, TAGS, new Date('2026-11-20T10:00:00Z'));
});

type Step = typeof step extends fc.Arbitrary<infer T> ? T : never;

/** What somebody does at the counter or on the wash line, right or wrong. */
const step = fc.oneof(
	{
		weight: 4,
		arbitrary: fc.record({
			do: fc.constant('out' as const),
			i: fc.nat(50),
			who: fc.nat(1),
			sure: fc.boolean()
		})
	},
	{
		weight: 4,
		arbitrary: fc.record({
			do: fc.constant('back' as const),
			i: fc.nat(50),
			unused: fc.boolean(),
			noticed: fc.subarray([...NOTICED], { maxLength: 1 }),
			sure: fc.boolean()
		})
	},
	{
		weight: 4,
		arbitrary: fc.record({
			do: fc.constant('bring' as const),
			i: fc.nat(50),
			to: fc.constantFrom(...BROUGHT_TO),
			sure: fc.boolean()
		})
	},
	{ weight: 3, arbitrary: fc.record({ do: fc.constant('bath' as const), i: fc.nat(50) }) },
	{ weight: 3, arbitrary: fc.record({ do: fc.constant('batch' as const), giveUp: fc.nat(9) }) },
	{
		weight: 3,
		arbitrary: fc.record({ do: fc.constant('look' as const), i: fc.nat(50), good: fc.boolean() })
	}
);

describe('any row of scans', () => {
	it('leaves every item in one place, by allowed moves, counted alike everywhere, and nothing lost', async () => {
		const { test, yard } = own;
		const { db } = test;
		const planId = await approvedPlan(yard);
		const modelId = await modelOf(test, 'HM-0001');
		const wearers = [
			await fitted(test, yard, 'W1', [{ modelId }]),
			await fitted(test, yard, 'W2', [{ modelId }])
		];
		const stock = randomUUID();
		let clock = Date.parse('2026-11-24T10:00:00Z');
		const as = (role: 'technician' | 'supervisor' = 'technician') =>
			yard.as(yard.people[role], new Date((clock += 60_000)));
		await openStock(as(), {
			id: stock,
			name: 'C 1',
			agent: 'chlorine',
			percent: 5,
			strengthAs: 'available chlorine',
			openedOn: '2026-11-24',
			halfLifeDays: null,
			expiresOn: null,
			leftMl: 100_000,
			labelMin: null
		});
		const tagOf = (i: number) => TAGS[i % TAGS.length] ?? '';
		const because = (sure: boolean) => (sure ? 'so it is' : undefined);
		const openBatch = async () =>
			(await db.select().from(washBatch).where(isNull(washBatch.endedAt)))[0];
		const seen = new Set<Where>();
		let given = 0;
		let brought = 0;

		async function take(one: Step): Promise<void> {
			const id = randomUUID();
			switch (one.do) {
				case 'out': {
					const said = await handOutItems(as('supervisor'), {
						id,
						wearerId: wearers[one.who] ?? '',
						tags: [tagOf(one.i)],
						planId,
						minutes: 30,
						accepted: true,
						override: one.sure ? 'so it is' : undefined,
						because: because(one.sure)
					});
					if (said.done && said.dueBackAt !== null) given++;
					return;
				}
				case 'back': {
					const said = await returnItem(as(), {
						id,
						tag: tagOf(one.i),
						unused: one.unused,
						noticed: one.noticed,
						because: because(one.sure)
					});
					if (said.done) brought++;
					return;
				}
				case 'bring':
					await bringItem(as(), {
						requestId: id,
						tag: tagOf(one.i),
						to: one.to,
						because: because(one.sure)
					});
					return;
				case 'bath': {
					const batch = await openBatch();
					if (!batch) await beginBatch(as(), { id, cleaner: 'neutral' });
					await intoBatch(as(), {
						requestId: randomUUID(),
						batchId: batch?.id ?? id,
						tag: tagOf(one.i)
					});
					return;
				}
				case 'batch': {
					const batch = await openBatch();
					if (!batch) return;
					if (one.giveUp === 0) {
						await giveUpBatch(as(), { requestId: id, batchId: batch.id, why: 'x' });
						return;
					}
					const next = {
						load: 'wash',
						wash: 'disinfect',
						disinfect: 'rinse',
						rinse: 'dry',
						dry: 'ended',
						ended: 'ended'
					} as const;
					await stepBatch(as(), {
						requestId: id,
						batchId: batch.id,
						to: next[batch.step],
						containerId: stock,
						volumeL: 10,
						stockMl: 10,
						rinsed: true,
						driedBy: 'air',
						decision: one.giveUp < 4 ? 'again' : one.giveUp < 7 ? 'inspect discs' : 'hold'
					});
					return;
				}
				case 'look':
					await lookOver(as(), {
						id,
						tag: tagOf(one.i),
						faults: one.good ? [] : [{ station: 'label', code: 'LABEL' }]
					});
			}
		}

		/** Everything that has to hold whatever was scanned. */
		async function holds(): Promise<void> {
			expect(await itemsNotOnce(db)).toBe(0);
			const rows = await db.select().from(custody).orderBy(custody.since);
			const last = new Map<string, (typeof rows)[number]>();
			for (const row of rows.toSorted(
				(a, b) => Number(a.until ?? Infinity) - Number(b.until ?? Infinity)
			)) {
				seen.add(row.where);
				const before = last.get(row.itemId);
				// Out of an allowed move, or set right with a reason that stands in it.
				if (before && !mayMove(before.where, row.where)) expect(row.note).not.toBe('');
				if (before) expect(before.until?.getTime()).toBe(row.since.getTime());
				last.set(row.itemId, row);
			}
			// What the shift sheet counts is what the states of the items come to.
			const states = await db
				.select({ family: item.family, setId: item.setId, state: itemState })
				.from(item)
				.innerJoin(itemState, eq(itemState.itemId, item.id));
			for (const shelf of await statesByPlace(db, '2026-11-24'))
				for (const [state, n] of Object.entries(shelf.counts))
					expect(
						states.filter(
							(row) =>
								row.family === shelf.family &&
								row.setId === null &&
								stateOn(row.state, '2026-11-24') === state
						).length
					).toBe(n);
			// Nothing that was answered as done is missing.
			expect((await db.select().from(handOut)).length).toBe(given);
			expect((await db.select().from(itemReturn)).length).toBe(brought);
		}

		await fc.assert(
			fc.asyncProperty(fc.array(step, { minLength: 12, maxLength: 30 }), async (steps) => {
				for (const one of steps)
					await take(one).catch((error: unknown) => {
						if (!(error instanceof Refusal)) throw error;
					});
				await holds();
			}),
			{ numRuns: 14, seed: 20_261 }
		);
		expect([...seen].sort()).toEqual([...WHERES].sort());
		expect((await verifyChain(db)).faults).toEqual([]);
	});
});
