import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import type { Airway } from '../../src/core/airway/airway.ts';
import { FAMILIES } from '../../src/core/data/families.ts';
import { family } from '../../src/core/data/family-tables.ts';
import { procedure as readProcedure } from '../../src/core/data/procedure-text.ts';
import { procedureFor, PROCEDURES } from '../../src/core/data/procedures.ts';
import type { Procedure, Step } from '../../src/core/inspection/procedure.ts';
import { commonPractice } from '../../src/core/verdict.ts';
import { answer } from '../../src/lib/server/inspection/answers.ts';
import { addPhoto, PHOTO_MOST_BYTES, photoJpeg } from '../../src/lib/server/inspection/photos.ts';
import {
	editionsOf,
	proceduresFor,
	saveEdition
} from '../../src/lib/server/inspection/procedures.ts';
import { runPage, signRun, startRun } from '../../src/lib/server/inspection/runs.ts';
import {
	readyInstead,
	saveSealCheck,
	sealChecksOf
} from '../../src/lib/server/inspection/seal-checks.ts';
import { loadFacts } from '../../src/lib/server/readiness/facts.ts';
import { itemByTag } from '../../src/lib/server/register/items.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import { today } from '../../src/lib/server/today/shift-sheet.ts';
import { openYard, SITE } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { answerAll, given, inspect, steps } from '../support/work.ts';
import { addPiece, completed, inspected } from '../support/yard.ts';
import sharp from 'sharp';

const own = openYard();

const at = (time: string) => new Date(`2026-11-24T${time}Z`);
const tech = (now?: Date) => own.yard.as(own.yard.people.technician, now);
const boss = () => own.yard.as(own.yard.people.supervisor);
const mask = procedureFor('half-mask');

describe('a procedure of the site', () => {
	const save = (change: (steps: Step[]) => Step[], from: number, reason = 'Maker’s notice 4') =>
		saveEdition(boss(), {
			requestId: randomUUID(),
			key: mask.key,
			from,
			name: mask.name,
			steps: change([...mask.steps]),
			reason
		});
	const extra = (s: Step[]): Step[] => [
		...s,
		{ ...(s.at(-1) as Step), key: 'bag-seal', title: 'Bag seal' }
	];

	it('stays at the level of the list that it changes: a yearly one is no usual inspection', async () => {
		const deep = PROCEDURES.find(({ key }) => key === 'half-mask-deep');
		await saveEdition(boss(), {
			requestId: randomUUID(),
			key: 'half-mask-deep',
			from: 1,
			name: deep?.name ?? '',
			steps: (deep?.steps ?? []).slice(0, -1),
			reason: 'The fit test has it'
		});
		const edition = (await proceduresFor(own.test.db, 'half-mask')).find(
			({ key }) => key === 'half-mask-deep'
		);
		expect(edition?.steps).toHaveLength((deep?.steps.length ?? 0) - 1);
		expect(edition?.levels).toEqual(['yearly deep']);
	});

	it('is in force for the next run; one that is open goes on under its own', async () => {
		const { id: old } = await startRun(tech(), { id: randomUUID(), tag: 'HM-0001' });
		expect(await save(extra, 1)).toBe(101);
		const { id: young } = await startRun(tech(), { id: randomUUID(), tag: 'HM-0002' });
		const [before, after] = [await runPage(tech(), old), await runPage(tech(), young)];
		expect([before.procedure.steps.length, after.procedure.steps.length]).toEqual([18, 19]);
		await answerAll(tech(), young);
		await expectRefusal(
			signRun(tech(), { requestId: randomUUID(), runId: young }),
			'invalid',
			/Bag seal/
		);
		await answer(tech(), given(young, 'bag-seal'));
		await signRun(tech(), { requestId: randomUUID(), runId: young });
		await answerAll(tech(), old);
		await signRun(tech(), { requestId: randomUUID(), runId: old });
		expect((await proceduresFor(own.test.db, 'half-mask'))[0]?.version).toBe(101);
		const [newest] = await editionsOf(own.test.db, mask.key);
		expect(newest).toMatchObject({ name: 'site 1', by: 'The supervisor' });
		expect(newest?.changes).toEqual([{ what: 'added', step: 'Bag seal' }]);
	});

	it('is made from the newest, with a reason, whole, by a supervisor; and never rewritten', async () => {
		await expectRefusal(save(extra, 1), 'conflict', /newer version/);
		await expectRefusal(save(extra, 101, ' '), 'invalid', /why/);
		await expectRefusal(save(extra, 101), 'invalid', /Nothing was changed/);
		await expectRefusal(
			save((s) => s.filter((x) => x.station !== 'bag'), 101),
			'invalid',
			/No step looks at bag/
		);
		await expectRefusal(
			saveEdition(tech(), {
				requestId: randomUUID(),
				key: mask.key,
				from: 101,
				name: 'x',
				steps: [],
				reason: 'x'
			}),
			'forbidden',
			/supervisor/
		);
		const both = await Promise.allSettled([save((s) => s, 101, 'one'), save((s) => s, 101, 'two')]);
		expect(both.map((r) => r.status).sort()).toEqual(['fulfilled', 'rejected']);
		await expect(own.test.raw`update procedure_edition set name = 'x'`).rejects.toThrow(
			/append-only/
		);
	});
});

describe('a run', () => {
	it('that does not stand is taken the place of, with a reason, once; then it counts no more', async () => {
		await addPiece(own.test, own.yard, 'half-mask', 'HM-0801');
		const wrong = await inspect(tech(at('08:00:00')), 'HM-0801');
		const last = async () => (await itemPage(tech(), 'HM-0801')).lastRun?.id;
		const replace = (reason: string, run = wrong) =>
			startRun(tech(), { id: randomUUID(), tag: 'HM-0801', supersede: { run, reason } });
		await expectRefusal(replace(' '), 'invalid', /why/);
		await expectRefusal(replace('x', randomUUID()), 'not found', /no such/);
		const { id } = await replace('Wrong mask on the bench');
		expect(await last()).toBe(wrong);
		await answerAll(tech(), id, { 'exhalation-disc': 'CURL' });
		await signRun(tech(), { requestId: randomUUID(), runId: id });
		expect(await last()).toBe(id);
		const page = await itemPage(tech(), 'HM-0801');
		expect(page.facts.lastInspectionOn).toBeNull();
		expect((await runPage(tech(), wrong)).supersededBy).toMatchObject({
			id,
			reason: 'Wrong mask on the bench'
		});
		await expectRefusal(replace('again'), 'conflict', /already/);
	});

	it('answered without a connection keeps the time each answer was given, in order and not in the future', async () => {
		await addPiece(own.test, own.yard, 'half-mask', 'HM-0802');
		const { id } = await startRun(tech(at('08:00:00')), { id: randomUUID(), tag: 'HM-0802' });
		const sent = tech(at('09:00:00'));
		for (const [i, step] of steps.entries())
			await answer(sent, given(id, step.key, { heldMs: (50 - i * 2) * 60_000 }));
		await answer(sent, given(id, 'bag-state', { heldMs: 999 * 3_600_000 }));
		await signRun(sent, { requestId: randomUUID(), runId: id });
		const rows = await own.test.raw<{ answered_at: Date; received_at: Date }[]>`
			select answered_at, received_at from inspection_answer where run_id = ${id} order by position`;
		expect(rows[0]?.answered_at.toISOString()).toBe('2026-11-24T08:10:00.000Z');
		expect(rows[17]?.answered_at.toISOString()).toBe('2026-11-24T08:44:00.000Z');
		expect(rows[18]?.answered_at).toEqual(rows[17]?.answered_at);
		expect(rows.every((r) => r.received_at.getTime() === at('09:00:00').getTime())).toBe(true);
		const page = await runPage(tech(), id);
		expect(page.run.reasons?.map((r) => r.rule)).not.toContain('inspection.too-fast');
	});

	it('of a suit being put on asks a second person, and proves nothing of the suit', async () => {
		await addPiece(own.test, own.yard, 'gas-tight-suit', 'GS-0801');
		const list = procedureFor('gas-tight-suit', undefined);
		expect(list.purpose ?? 'inspection').toBe('inspection');
		const start = { id: randomUUID(), tag: 'GS-0801', procedure: 'gas-tight-suit-donning' };
		const { id } = await startRun(tech(), start);
		await expectRefusal(
			startRun(tech(), { id: randomUUID(), tag: 'GS-0801' }),
			'conflict',
			/another list open/
		);
		const { procedure } = await runPage(tech(), id);
		for (const step of procedure.steps) {
			const own = answer(tech(), given(id, step.key));
			if (!step.secondPerson) await own;
			else {
				await expectRefusal(own, 'forbidden', /second person/);
				await answer(boss(), given(id, step.key));
			}
		}
		await signRun(tech(), { requestId: randomUUID(), runId: id });
		const page = await itemPage(tech(), 'GS-0801');
		expect(page.verdict.outcome).toBe('overdue');
		expect(page.lastRun).toBeNull();
	});
});

describe('a picture', () => {
	it('is drawn anew, upright and without what came with it; anything else is refused', async () => {
		await addPiece(own.test, own.yard, 'half-mask', 'HM-0803');
		const { id: runId } = await startRun(tech(), { id: randomUUID(), tag: 'HM-0803' });
		const shot = await sharp({
			create: { width: 2400, height: 1200, channels: 3, background: '#884422' }
		})
			.withExif({ IFD0: { Artist: 'Somebody', Copyright: 'secret place' } })
			.withMetadata({ orientation: 6 })
			.jpeg()
			.toBuffer();
		const add = (bytes: Uint8Array, id = randomUUID()) =>
			addPhoto(tech(), { id, runId, step: 'bag-state', bytes }).then(() => id);
		const id = await add(shot);
		await add(shot, id);
		const kept = await photoJpeg(own.test.db, id);
		const meta = await sharp(kept).metadata();
		expect(meta).toMatchObject({ format: 'jpeg', width: 800, height: 1600 });
		expect(meta.exif).toBeUndefined();
		expect(kept.includes('secret place')).toBe(false);
		expect((await runPage(tech(), runId)).photos).toHaveLength(1);
		const script = new TextEncoder().encode('#!/bin/sh\nrm -rf /\n');
		await expectRefusal(add(script), 'invalid', /no picture, whatever its name/);
		await expectRefusal(add(shot.subarray(0, 900)), 'invalid', /no picture/);
		const svg = new TextEncoder().encode(
			'<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'
		);
		await expectRefusal(add(svg), 'invalid', /no picture/);
		await expectRefusal(add(new Uint8Array(PHOTO_MOST_BYTES + 1)), 'invalid', /15 MB at most/);
		await expectRefusal(
			addPhoto(own.yard.as(own.yard.people.viewer), {
				id: randomUUID(),
				runId,
				step: 'x',
				bytes: shot
			}),
			'forbidden',
			/viewer/
		);
		await expect(own.test.raw`delete from photo`).rejects.toThrow(/append-only/);
	});
});

describe('a seal check', () => {
	it('is kept with every attempt when it has ended, once', async () => {
		const { id: itemId } = await addPiece(own.test, own.yard, 'full-face', 'FF-0801');
		const save = (felt: string[], part: object = {}, id = randomUUID()) =>
			saveSealCheck(tech(), {
				id,
				tag: 'FF-0801',
				wearer: 'Wearer 12',
				attempts: felt.map((word) => ({ inlet: 'port', felt: word as 'air at the edge' })),
				...part
			}).then(() => id);
		await expectRefusal(save(['air at the edge']), 'invalid', /not ended/);
		await expectRefusal(save([]), 'invalid', /One to 12/);
		await expectRefusal(save(['not pulled in'], { wearer: ' ' }), 'invalid', /who wears/);
		await expectRefusal(save(['not pulled in'], { tag: 'GS-0801' }), 'invalid', /no seal check/);
		// The site asks for both ways: one that held is not the end.
		await expectRefusal(save(['pulled in and held']), 'invalid', /asks for both.*breathing out/);
		const attempts = [
			{ inlet: 'port', felt: 'air at the edge' },
			{ inlet: 'port', felt: 'pulled in and held' },
			{ inlet: 'port', felt: 'lifted and held', way: 'out' }
		];
		const id = await save([], { attempts });
		await save([], { attempts }, id);
		const kept = await sealChecksOf(own.test.db, itemId);
		expect(kept.map((row) => [row.check.outcome, row.check.attempts.length])).toEqual([
			['seals', 3]
		]);
	});

	it('that failed twice names what else is ready, of the family and where nothing has to seal', async () => {
		const mask = await addPiece(own.test, own.yard, 'full-face', 'FF-0802');
		await addPiece(own.test, own.yard, 'full-face', 'FF-0803');
		await addPiece(own.test, own.yard, 'powered-blower', 'PB-0804');
		await addPiece(own.test, own.yard, 'full-face', 'FF-0805');
		await inspected(own.test, own.yard, ['FF-0803', 'PB-0804'], new Date('2026-11-20T08:00:00Z'));
		const { item, model, place } = await itemByTag(own.test.db, 'FF-0802');
		expect(item.id).toBe(mask.id);
		const found = await readyInstead(tech(), { ...item, model: model.name, place });
		expect(found.task).toBeNull();
		// FF-0805 was never inspected: it is not ready.
		expect(found.instead.map(({ tag }) => tag)).toEqual(['FF-0803', 'PB-0804']);
	});
});

describe('a trend', () => {
	const bench = procedureFor('ba-set', 'bench');
	/** A bench inspection of the set on a day, with the whistle at a pressure. */
	async function inspectSet(on: string, whistle: number): Promise<void> {
		const context = tech(new Date(`${on}T10:00:00Z`));
		const { id } = await startRun(context, {
			id: randomUUID(),
			tag: 'BA-0801',
			procedure: bench.key
		});
		for (const step of bench.steps)
			await answer(
				context,
				given(id, step.key, {
					value: step.ifFitted ? 'not fitted' : 'good',
					readings:
						step.reading?.kind === 'hold'
							? { start: 295, end: 293, seconds: 60 }
							: step.reading
								? { value: step.reading.kind === 'whistle' ? whistle : 290 }
								: null
				})
			);
		await signRun(context, { requestId: randomUUID(), runId: id });
	}

	it('of the whistle is followed, makes the set watched, and begins anew after a repair', async () => {
		const { id: itemId } = await addPiece(own.test, own.yard, 'ba-set', 'BA-0801', {
			ratedBar: 300
		});
		await completed(own.test, own.yard, 'BA-0801', new Date('2026-10-01T08:00:00Z'));
		const trends = async () => (await loadFacts(own.test.db, [itemId], SITE)).get(itemId)?.trends;
		for (const [i, month] of ['06', '07', '08', '09', '10'].entries())
			await inspectSet(`2026-${month}-01`, 56 - i);
		const [whistle, hold] = (await trends()) ?? [];
		expect(whistle?.points.map((p) => p.value)).toEqual([56, 55, 54, 53, 52]);
		expect(whistle?.trend?.perMonth).toBeCloseTo(-0.98, 1);
		expect(whistle?.reasons[0]?.text).toMatch(/reaches 50 bar in \d+ days/);
		expect(hold?.trend).toMatchObject({ perMonth: 0, crossesOn: null });

		// A drift is a watch: usable, and inspected again in half the time.
		const dayAfter = tech(new Date('2026-10-02T10:00:00Z'));
		expect((await itemPage(dayAfter, 'BA-0801')).verdict.outcome).toBe('ready');
		const line = (await today(dayAfter)).lines.find((one) => one.tag === 'BA-0801');
		expect(line).toMatchObject({ kind: 'watch', on: '2026-10-15' });
		expect(line?.detail).toMatch(/^Whistle falls by/);

		await inspectSet('2026-10-05', 49);
		expect((await trends())?.[0]?.points).toHaveLength(6);
		await inspectSet('2026-10-07', 56);
		expect((await trends())?.[0]).toMatchObject({ points: [{ value: 56 }], reasons: [] });
	});
});

describe('a family added as data alone', () => {
	it('is kept, inspected and held like any other', async () => {
		const hood: Airway = family(
			'smoke-hood',
			'Smoke hood',
			'Smoke hoods',
			`key | name | short | zone | sides | if fitted | faults
canister | Canister | canister | ambient | both | | Out of date
hood | Hood and window | hood | mask | | | Torn`
		);
		const look: Procedure = readProcedure(
			{
				key: 'smoke-hood-check',
				name: 'Smoke hood',
				family: 'smoke-hood',
				origin: commonPractice()
			},
			`key | station | title | action | good | rejects | kind | why | sides | if fitted
canister | canister | Canister | Read it. | In date. | DATE | look | It ages. | both |
hood | hood | Hood | Look through. | Whole. | TEAR | look | It must be seen through. | |`
		);
		(FAMILIES as Airway[]).push(hood);
		(PROCEDURES as Procedure[]).push(look);
		try {
			await addPiece(own.test, own.yard, 'smoke-hood', 'SH-0801');
			const { id } = await startRun(tech(), { id: randomUUID(), tag: 'SH-0801' });
			for (const step of look.steps)
				await answer(
					tech(),
					given(id, step.key, step.key === 'hood' ? { value: 'reject', code: 'TEAR' } : {})
				);
			await signRun(tech(), { requestId: randomUUID(), runId: id });
			const page = await itemPage(tech(), 'SH-0801');
			expect(page.verdict.outcome).toBe('held');
			expect(page.defects).toMatchObject([{ station: 'hood', code: 'TEAR' }]);
		} finally {
			(FAMILIES as Airway[]).pop();
			(PROCEDURES as Procedure[]).pop();
		}
	});
});
