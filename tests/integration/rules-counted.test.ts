import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import type { IntervalRule } from '../../src/core/plan/rules.ts';
import { proceduresOf } from '../../src/core/data/procedures.ts';
import { enterTeam, leave } from '../../src/lib/server/air/entries.ts';
import { duesOfItem } from '../../src/lib/server/db/queries/dues.ts';
import { benchTest, defect, item, partLot } from '../../src/lib/server/db/schema/index.ts';
import { finishJob, releaseJob } from '../../src/lib/server/faults/jobs.ts';
import { startPlannedJob } from '../../src/lib/server/faults/planned.ts';
import { answer } from '../../src/lib/server/inspection/answers.ts';
import { signRun, startRun } from '../../src/lib/server/inspection/runs.ts';
import { loadSite } from '../../src/lib/server/kernel/site.ts';
import { noteEvent } from '../../src/lib/server/register/events.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import { compareModels, saveItemModel } from '../../src/lib/server/register/models.ts';
import { movePart } from '../../src/lib/server/register/sets.ts';
import { previewRule, saveRule } from '../../src/lib/server/site/rules.ts';
import { addCylinder } from '../support/air.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { given, inspect } from '../support/work.ts';
import { addPiece, completed, inspected } from '../support/yard.ts';

const T0 = Date.parse('2026-11-24T10:00:00Z');
const at = (minutes: number) => new Date(T0 + minutes * 60_000);
const own = openYard();
const tech = (minutes = 0) => own.yard.as(own.yard.people.technician, at(minutes));
const boss = async (minutes = 0) => ({
	...own.yard.as(own.yard.people.supervisor, at(minutes)),
	site: await loadSite(own.test.db)
});

/** Takes a rule up, having looked at what it would do. */
async function rule(part: Partial<IntervalRule>) {
	const input = {
		requestId: randomUUID(),
		id: randomUUID(),
		version: 0,
		reason: 'tried',
		meant: true,
		rule: {
			what: 'inspection' as const,
			detail: '',
			every: { days: 7 },
			window: 0,
			families: [],
			modelId: null,
			usePattern: null,
			placeId: null,
			replaces: null,
			...part
		}
	};
	const preview = await previewRule(await boss(), input);
	await saveRule(await boss(), input);
	return preview;
}
const idOf = async (tag: string) =>
	(await own.test.db.select().from(item).where(eq(item.tag, tag)))[0]?.id ?? '';
const due = async (tag: string, what: string) =>
	(await duesOfItem(own.test.db, await idOf(tag))).find((one) => one.what === what);
const outcome = async (tag: string, minutes = 0) =>
	(await itemPage(await boss(minutes), tag)).verdict.outcome;

/** A bench test that was passed at a moment. */
async function pressed(tag: string, minutes: number) {
	const by = own.yard.people.technician.id;
	await own.test.db.insert(benchTest).values({
		id: randomUUID(),
		itemId: await idOf(tag),
		recipe: 'mask-full-face',
		recipeVersion: 1,
		instrument: 'bench',
		startedBy: by,
		startedAt: at(minutes),
		endedAt: at(minutes),
		outcome: 'pass',
		leakPaPerMin: 1,
		reasons: []
	});
}
/** Somebody goes in with a set and comes out. */
async function goIn(set: string, from: number, minutes: number) {
	const wearerId = randomUUID();
	const one = {
		id: wearerId,
		wearer: `W${from}`,
		set,
		waterVolumeL: 6.8,
		startBar: 290,
		channel: ''
	};
	await enterTeam(tech(from), {
		id: randomUUID(),
		task: 'Tank',
		placeId: own.yard.place,
		wearers: [{ ...one, seal: true }]
	});
	await leave(tech(from + minutes), { requestId: randomUUID(), wearerId, endBar: 200 });
}

describe('a use on the board', () => {
	it('counts for the set and for what is on it, from when it was put there', async () => {
		await addPiece(own.test, own.yard, 'ba-set', 'BA-0701');
		await addPiece(own.test, own.yard, 'full-face', 'FF-0701');
		await addPiece(own.test, own.yard, 'full-face', 'FF-0702');
		await addCylinder(own.test, own.yard, 'CY-0701', { bar: 300 });
		const tags = ['BA-0701', 'FF-0701', 'FF-0702', 'CY-0701'];
		await inspected(own.test, own.yard, tags, at(-60));
		for (const tag of ['FF-0701', 'CY-0701'])
			await movePart(tech(-50), { requestId: randomUUID(), tag, set: 'BA-0701' });
		await pressed('FF-0701', -40);
		await pressed('FF-0702', -40);
		const counted = { families: ['full-face'], what: 'bench test' as const };
		await rule({ ...counted, every: { uses: 3 }, window: 1 });
		expect(await due('FF-0701', 'bench test')).toMatchObject({ left: '3 uses left' });
		await goIn('BA-0701', 0, 20);
		expect(await due('FF-0701', 'bench test')).toMatchObject({ left: '2 uses left' });
		expect(await outcome('FF-0701', 21)).toBe('ready');
		await goIn('BA-0701', 30, 20);
		expect(await outcome('FF-0701', 51)).toBe('due');
		// The other mask takes its place: what the set went through before is not its own.
		await movePart(tech(52), { requestId: randomUUID(), tag: 'FF-0701', set: null });
		await movePart(tech(53), { requestId: randomUUID(), tag: 'FF-0702', set: 'BA-0701' });
		expect(await due('FF-0702', 'bench test')).toMatchObject({ left: '3 uses left' });
		await goIn('BA-0701', 60, 30);
		expect(await due('FF-0702', 'bench test')).toMatchObject({ left: '2 uses left' });
	});

	it('asks for what follows a use until it is done: the closing list', async () => {
		await addPiece(own.test, own.yard, 'ba-set', 'BA-0711');
		await inspected(own.test, own.yard, ['BA-0711'], at(-60));
		await completed(own.test, own.yard, 'BA-0711', at(-60));
		await rule({
			families: ['ba-set'],
			what: 'list',
			detail: 'after use',
			every: { after: 'use' }
		});
		expect((await due('BA-0711', 'list'))?.left).toBe('after every use');
		await goIn('BA-0711', 100, 20);
		expect((await due('BA-0711', 'list'))?.left).toBe('used 24 Nov 2026');
		const id = randomUUID();
		await startRun(tech(121), { id, tag: 'BA-0711', procedure: 'ba-set-after-use' });
		const list = proceduresOf('ba-set').find(({ key }) => key === 'ba-set-after-use');
		for (const step of list?.steps ?? []) await answer(tech(122), given(id, step.key));
		await signRun(tech(130), { requestId: randomUUID(), runId: id });
		expect((await due('BA-0711', 'list'))?.left).toBe('after every use');
	});
});

describe('what happened to an item', () => {
	it('a drop is noted by anybody, keeps it from use until it is inspected, and is said in its history', async () => {
		const viewer = own.yard.as(own.yard.people.viewer, at(200));
		await inspect(tech(190), 'HM-0001');
		expect(await outcome('HM-0001', 195)).toBe('ready');
		const input = {
			id: randomUUID(),
			tag: 'HM-0001',
			what: 'drop' as const,
			note: 'Off the bench.'
		};
		await noteEvent(viewer, input);
		await noteEvent(viewer, input);
		const page = await itemPage(await boss(201), 'HM-0001');
		expect(page.verdict.outcome).toBe('overdue');
		expect(page.events[0]?.says).toBe('Noted: dropped or struck. Off the bench.');
		await inspect(tech(210), 'HM-0001');
		expect(await outcome('HM-0001', 230)).toBe('ready');
	});

	it('a part whose life is over is changed as a job, after which it counts anew', async () => {
		await inspect(tech(300), 'HM-0002');
		const preview = await rule({
			families: ['half-mask'],
			what: 'service',
			detail: 'replace-disc',
			every: { months: 10 }
		});
		expect(preview).toMatchObject({ overdue: 2, benchMinutes: 40 });
		expect(await outcome('HM-0002', 301)).toBe('overdue');
		const id = randomUUID();
		await expectRefusal(
			startPlannedJob(tech(302), { id: randomUUID(), tag: 'HM-0002', repair: 'ba-service' }),
			'invalid',
			/no repair of HM-0002/
		);
		const { defectId } = await startPlannedJob(tech(302), {
			id,
			tag: 'HM-0002',
			repair: 'replace-disc'
		});
		expect(
			(await own.test.db.select().from(defect).where(eq(defect.id, defectId)))[0]
		).toMatchObject({ code: 'OVER', station: 'inhalation-left' });
		const lot = randomUUID();
		await own.test.db
			.insert(partLot)
			.values({ id: lot, part: 'disc-inhalation', lot: 'E1', quantity: 4 });
		await finishJob(tech(310), {
			requestId: randomUUID(),
			jobId: id,
			version: 1,
			proof: [true, true, true],
			parts: [{ lotId: lot, quantity: 1 }],
			note: ''
		});
		await inspect(tech(320), 'HM-0002');
		await releaseJob(await boss(330), { requestId: randomUUID(), jobId: id, version: 2 });
		expect(await due('HM-0002', 'service')).toMatchObject({ on: '2027-09-24', left: '' });
		expect(await outcome('HM-0002', 331)).toBe('ready');
	});
});

describe('the card of a model', () => {
	const said = {
		family: 'ba-set',
		maker: 'T',
		mount: 'none',
		ratedBar: 300,
		holdDropBar: null,
		donning: null,
		filterCount: 0,
		approved: [],
		makerLines: []
	};

	it('says what changed, is not written over somebody else’s, and judges the next reading', async () => {
		const { modelId } = await addPiece(own.test, own.yard, 'ba-set', 'BA-0721', { ratedBar: 300 });
		const save = async (card: object, version: number) =>
			saveItemModel(await boss(), {
				...said,
				requestId: randomUUID(),
				id: modelId,
				name: 'T BA-0721',
				version,
				card
			});
		await save({ whistleFromBar: 53, whistleToBar: 58 }, 1);
		await expectRefusal(save({}, 1), 'conflict', /changed meanwhile/);
		await expectRefusal(
			save({ whistleFromBar: 40, whistleToBar: 58 }, 2),
			'invalid',
			/from 50 to 60/
		);
		const id = randomUUID();
		await startRun(tech(400), { id, tag: 'BA-0721', procedure: 'ba-set-bench' });
		const answers = await answer(
			tech(401),
			given(id, 'whistle', { value: 'good', readings: { value: 51 } })
		);
		expect(answers.at(-1)).toMatchObject({ value: 'reject', code: 'WHL' });
		const { modelId: other } = await addPiece(own.test, own.yard, 'ba-set', 'BA-0722');
		const compared = await compareModels(own.test.db, [modelId, other]);
		expect(compared.lines.find(({ label }) => label === 'Whistle not below')).toEqual({
			label: 'Whistle not below',
			values: ['53 bar', ''],
			differs: true
		});
	});

	it('keeps a set from becoming heavier than it may be', async () => {
		const weighs = (weightKg: number) => ({ card: { weightKg } });
		await addPiece(own.test, own.yard, 'ba-set', 'BA-0731', weighs(5.2));
		await addPiece(own.test, own.yard, 'full-face', 'FF-0731', weighs(0.7));
		for (const tag of ['CY-0731', 'CY-0732'])
			await addCylinder(own.test, own.yard, tag, { bar: 300, emptyKg: 4.6 });
		const put = async (tag: string) =>
			movePart(tech(500), { requestId: randomUUID(), tag, set: 'BA-0731' });
		await put('FF-0731');
		await put('CY-0731');
		// Published: EN 137, 18 kg at most, from memory: two full 6.8 L cylinders of 4.6 kg make it 19.5.
		await expectRefusal(
			put('CY-0732'),
			'conflict',
			/would weigh too much: 19\.\d\d kg .* 18 kg at most/
		);
	});
});
