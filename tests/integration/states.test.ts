import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { asc, eq, inArray } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import { FAMILIES } from '../../src/core/data/families.ts';
import { recordOf } from '../../src/core/data/family-records.ts';
import { plusDays } from '../../src/core/plan/calendar.ts';
import { duesOf, findingsOf, NEVER, stateOn } from '../../src/core/readiness/findings.ts';
import { judgeItem, stateCache } from '../../src/core/readiness/item-state.ts';
import { duesUntil } from '../../src/lib/server/db/queries/dues.ts';
import {
	defect,
	item,
	itemDue,
	itemModel,
	itemState
} from '../../src/lib/server/db/schema/index.ts';
import { notePressure } from '../../src/lib/server/air/cylinders.ts';
import { writeUnattended } from '../../src/lib/server/kernel/write.ts';
import { loadFacts } from '../../src/lib/server/readiness/facts.ts';
import { rebuildAll } from '../../src/lib/server/readiness/rebuild-all.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import { movePart } from '../../src/lib/server/register/sets.ts';
import { planFacts } from '../../src/lib/server/plan/facts.ts';
import { addCylinder } from '../support/air.ts';
import { openYard, SITE } from '../support/database.ts';
import { addPiece, inspected } from '../support/yard.ts';

const NOW = new Date('2026-11-24T10:00:00Z');
const TODAY = '2026-11-24';
/** One piece of each family, and a set put together from a mask and a cylinder. */
const pieces = new Map<string, { id: string; tag: string }>();
const own = openYard(async () => {
	for (const [i, { family }] of FAMILIES.entries()) {
		const tag = `X-${String(i + 1).padStart(4, '0')}`;
		const id =
			recordOf(family).air === 'cylinder'
				? await addCylinder(own.test, own.yard, tag)
				: (await addPiece(own.test, own.yard, family, tag)).id;
		pieces.set(family, { id, tag });
	}
	const tags = [...pieces.values()].map((piece) => piece.tag);
	await inspected(own.test, own.yard, tags, new Date('2026-11-10T09:00:00Z'));
	for (const part of ['cylinder', 'full-face'])
		await movePart(own.tech(NOW), {
			requestId: randomUUID(),
			tag: pieces.get(part)?.tag ?? '',
			set: pieces.get('ba-set')?.tag ?? ''
		});
});
const { tech } = own;
const ids = () => [...pieces.values()].map((piece) => piece.id);

/** Compares what is kept of every piece with what the core says of its facts. */
async function compare() {
	const known = await loadFacts(own.test.db, ids(), SITE);
	const states = await own.test.db.select().from(itemState).where(inArray(itemState.itemId, ids()));
	const dues = await own.test.db
		.select()
		.from(itemDue)
		.where(inArray(itemDue.itemId, ids()))
		.orderBy(asc(itemDue.itemId), asc(itemDue.what), asc(itemDue.part));
	expect(states).toHaveLength(pieces.size);
	for (const row of states) {
		const facts = known.get(row.itemId)?.facts;
		if (!facts) throw new Error('no facts');
		const cache = stateCache(facts, SITE.ruleSet);
		expect(row).toMatchObject(cache);
		const expected = cache.blocked === 'retired' ? [] : duesOf(findingsOf(facts, 'uk', NEVER));
		expect(dues.filter((due) => due.itemId === row.itemId)).toEqual(
			expected
				.map(({ what, detail = '', part = '', from, on, left = '' }) => ({
					itemId: row.itemId,
					what,
					detail,
					part,
					leftWords: left,
					dueFrom: from,
					dueOn: on
				}))
				.sort((a, b) => a.what.localeCompare(b.what) || a.part.localeCompare(b.part))
		);
		for (const days of [0, 5, 12, 17, 30, 400])
			expect(stateOn(row, plusDays(TODAY, days))).toBe(
				judgeItem(facts, 'uk', plusDays(TODAY, days)).outcome
			);
	}
}

describe('what is kept of every family and of sets', () => {
	it('holds one due at least of each, of a set one for each part as well', async () => {
		await compare();
		const set = await own.test.db
			.select()
			.from(itemDue)
			.where(eq(itemDue.itemId, pieces.get('ba-set')?.id ?? ''));
		expect(set.map((due) => [due.what, due.part]).sort()).toEqual([
			['inspection', ''],
			['part', pieces.get('full-face')?.tag],
			['part', pieces.get('cylinder')?.tag]
		]);
	});

	it('is as the core says after any facts in any order', async () => {
		const families = FAMILIES.map((f) => f.family);
		const severity = fc.constantFrom('stop', 'repair', 'watch', 'note') as fc.Arbitrary<'stop'>;
		const event = fc.record({
			family: fc.constantFrom(...families),
			what: fc.constantFrom(
				'fault',
				'mended',
				'retired',
				'withdrawn',
				'let back'
			) as fc.Arbitrary<'fault'>,
			severity
		});
		const happen = async ({
			family,
			what,
			severity: s
		}: {
			family: string;
			what: string;
			severity: 'stop';
		}) => {
			const piece = pieces.get(family);
			if (!piece) throw new Error(family);
			await writeUnattended(tech(NOW), null, async ({ tx, changed }) => {
				const [row] = await tx.select().from(item).where(eq(item.id, piece.id));
				if (what === 'fault')
					await tx
						.insert(defect)
						.values({
							id: randomUUID(),
							itemId: piece.id,
							station: FAMILIES.find((f) => f.family === family)?.stations[0]?.key ?? '',
							code: 'LABEL',
							severity: s,
							reportedBy: own.yard.people.technician.id,
							reportedAt: NOW
						})
						.onConflictDoNothing();
				if (what === 'mended')
					await tx
						.update(defect)
						.set({ closedAt: NOW, closedHow: 'released' })
						.where(eq(defect.itemId, piece.id));
				if (what === 'retired')
					await tx
						.update(item)
						.set({ retiredOn: row?.retiredOn ? null : TODAY })
						.where(eq(item.id, piece.id));
				if (what === 'withdrawn' || what === 'let back')
					await tx
						.update(itemModel)
						.set({
							withdrawnOn: what === 'withdrawn' ? TODAY : null,
							withdrawnWhy: what === 'withdrawn' ? 'notice' : null
						})
						.where(eq(itemModel.id, row?.modelId ?? ''));
				changed(piece.id);
			});
		};
		await fc.assert(
			fc.asyncProperty(fc.array(event, { minLength: 1, maxLength: 6 }), async (events) => {
				for (const one of events) await happen(one);
				await compare();
			}),
			{ numRuns: 12 }
		);
		await own.test
			.raw`update defect set closed_at = now(), closed_how = 'released' where closed_at is null`;
		await own.test.raw`update item set retired_on = null`;
		await own.test.raw`update item_model set withdrawn_on = null, withdrawn_why = null`;
	});

	it('is the same after all of it was worked out anew', async () => {
		await rebuildAll(tech(NOW));
		await compare();
	});

	it('is read by the plan, each due of an item by itself, a part under its own tag', async () => {
		const rows = await duesUntil(own.test.db, plusDays(TODAY, 2000), TODAY, 500);
		const cylinder = pieces.get('cylinder')?.tag ?? '';
		const of = rows.filter((row) => row.tag === cylinder);
		expect(of.map((row) => row.dueWhat)).toEqual(['inspection', 'cylinder test']);
		expect(of[0]?.set).toBe(pieces.get('ba-set')?.tag);
		expect(rows.some((row) => row.dueWhat === 'part')).toBe(false);
		const tags = (await planFacts(tech(NOW), 60)).jobs.map(({ tag: one }) => one);
		for (const { tag } of pieces.values()) expect(tags).toContain(tag);
	});

	it('stands on the page of an item: every due, the next first, and its last events', async () => {
		const tag = pieces.get('cylinder')?.tag ?? '';
		await notePressure(tech(NOW), { requestId: randomUUID(), tag, pressureBar: 250 });
		const page = await itemPage(tech(NOW), tag);
		expect(page.dues.map((due) => due.what)).toEqual(['inspection', 'cylinder test']);
		expect(page.events[0]).toMatchObject({ tag, says: '250 bar, read by hand' });
		const set = await itemPage(tech(NOW), pieces.get('ba-set')?.tag ?? '');
		expect(set.dues.map((due) => due.part).filter(Boolean)).toHaveLength(2);
	});
});
