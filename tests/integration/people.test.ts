import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { FIT_PROTOCOLS } from '../../src/core/fit/protocols.ts';
import { fitTest, wearer } from '../../src/lib/server/db/schema/index.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import { type FitTestInput, saveFitTest } from '../../src/lib/server/people/fit-tests.ts';
import {
	listWearers,
	reportChange,
	saveWearer,
	wearerPage,
	type WearerInput
} from '../../src/lib/server/people/wearers.ts';
import { history } from '../../src/lib/server/records/history.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { addPiece } from '../support/yard.ts';

const own = openYard();
const at = (text: string) => new Date(text);
const NOW = at('2026-11-24T10:00:00Z');
const tech = (now = NOW) => own.yard.as(own.yard.people.technician, now);
const input = (part: Partial<WearerInput> = {}): WearerInput => ({
	requestId: randomUUID(),
	id: randomUUID(),
	version: 0,
	number: '41',
	name: 'Nora Quist',
	userId: null,
	eyewear: false,
	beard: false,
	clearedUntil: '2027-06-30',
	trainedUntil: null,
	placeIds: [],
	...part
});
async function added(number: string, part: Partial<WearerInput> = {}): Promise<string> {
	const one = input({ number, name: `Wearer ${number}`, ...part });
	await saveWearer(tech(), one);
	return one.id;
}
const uk = FIT_PROTOCOLS.find(({ key }) => key === 'uk-seven');
const factors = (value: number) =>
	Object.fromEntries((uk?.exercises ?? []).map(({ key }) => [key, value]));
async function sheet(wearerId: string, part: Partial<FitTestInput> = {}): Promise<FitTestInput> {
	const [model] = await own.test.raw<{ model_id: string }[]>`
		select model_id from item where tag = 'FF-0901'`;
	return {
		id: randomUUID(),
		wearerId,
		modelId: model?.model_id ?? '',
		size: 'M',
		method: 'quantitative',
		protocol: 'uk-seven',
		agent: null,
		factors: factors(2400),
		noticedNothing: false,
		worn: '',
		testedOn: '2026-11-20',
		tester: 'I. Norrby',
		...part
	};
}
const says = async (context: Context, id: string) =>
	(await wearerPage(context, id)).tests.map(({ verdict }) => verdict.outcome);

describe('a wearer', () => {
	it('is taken in once, changed by nobody over another, and stands in the log as a number', async () => {
		const one = input({ placeIds: [own.yard.place] });
		await saveWearer(tech(), one);
		await saveWearer(tech(), one);
		await expectRefusal(saveWearer(tech(), input()), 'conflict', /Number 41 is somebody else/);
		const next = { ...one, requestId: randomUUID(), name: 'Nora Falk' };
		await expectRefusal(saveWearer(tech(), next), 'conflict', /changed meanwhile/);
		await saveWearer(tech(), { ...next, version: 1, placeIds: [] });
		const page = await wearerPage(tech(), one.id);
		expect(page.wearer).toMatchObject({ name: 'Nora Falk', version: 2 });
		expect(page.places).toEqual([]);
		const lines = await history({ db: own.test.db }, { limit: 5 });
		expect(lines.map((line) => line.says).join(' ')).not.toMatch(/Nora|Falk|Quist/);
		expect((await listWearers(tech(), 'falk')).map(({ number }) => number)).toEqual(['41']);
		expect(await listWearers(tech(), '%')).toEqual([]);
	});

	it('has an account of their own, and no other wearer has it', async () => {
		const userId = own.yard.people.viewer.id;
		await added('50', { userId });
		await expectRefusal(
			saveWearer(tech(), input({ number: '51', userId })),
			'conflict',
			/another wearer/
		);
	});
});

describe('a fit test from paper', () => {
	it('is judged anew from its figures, kept as it was signed, and counts until the day a year later', async () => {
		await addPiece(own.test, own.yard, 'full-face', 'FF-0901');
		const id = await added('60');
		expect(await saveFitTest(tech(), await sheet(id))).toEqual({ passed: true });
		expect(await says(tech(), id)).toEqual(['counts']);
		expect(await says(tech(at('2027-11-20T10:00:00Z')), id)).toEqual(['counts']);
		expect(await says(tech(at('2027-11-21T10:00:00Z')), id)).toEqual(['does not']);
		await expect(
			own.test.db.update(fitTest).set({ passed: false }).where(eq(fitTest.wearerId, id))
		).rejects.toThrow();
		expect((await listWearers(tech(), '60'))[0]?.fits).toEqual([
			{ model: 'T FF-0901', size: 'M', until: '2027-11-20' }
		]);
	});

	it.each([
		[{ testedOn: '2026-11-25' }, /has not come yet/],
		[{ factors: { ...factors(2400), talk: 0 } }, /above zero/],
		[{ protocol: 'us-full' }, /other rule set/],
		[{ size: ' ' }, /which size/],
		[{ modelId: randomUUID() }, /Choose the model/],
		[{ method: 'qualitative' as const }, /not accepted for a full-face/]
	])('with %j is refused, and nothing is kept', async (part, say) => {
		const id = await added(`7${Math.floor(Math.random() * 1e9)}`);
		await expectRefusal(saveFitTest(tech(), await sheet(id, part)), 'invalid', say);
		expect((await wearerPage(tech(), id)).tests).toEqual([]);
	});

	it('with six factors of seven says which one is missing', async () => {
		const id = await added('80');
		const { updown: _, ...six } = factors(2400);
		await expectRefusal(
			saveFitTest(tech(), await sheet(id, { factors: six })),
			'invalid',
			/Not measured: head up and down/
		);
	});

	it('fails under the UK pack where one exercise lies below, and does not count', async () => {
		const id = await added('81');
		const low = { ...factors(9000), talk: 1999 };
		expect(await saveFitTest(tech(), await sheet(id, { factors: low }))).toEqual({ passed: false });
		expect(await says(tech(), id)).toEqual(['does not']);
	});
});

describe('a change that is reported', () => {
	it('by the wearer on their own phone ends the tests of that day, by nobody else who only looks', async () => {
		const viewer = own.yard.as(own.yard.people.viewer, at('2026-11-24T12:00:00Z'));
		const mine = (await listWearers(tech(), '50'))[0]?.id ?? '';
		const other = await added('90');
		for (const id of [mine, other]) await saveFitTest(tech(), await sheet(id));
		const report = (wearerId: string, what: 'dental' | 'weight' = 'dental') =>
			reportChange(viewer, { id: randomUUID(), wearerId, what });
		await expectRefusal(report(other), 'forbidden', /by the wearer, or by a technician/);
		await report(mine);
		expect(await says(tech(), mine)).toEqual(['does not']);
		expect(await says(tech(), other)).toEqual(['counts']);
		const page = await wearerPage(viewer, mine);
		expect(page.mayReport).toBe(true);
		await expectRefusal(wearerPage(viewer, other), 'forbidden', /see wearers/);
		await expectRefusal(listWearers(viewer), 'forbidden', /see wearers/);
		expect(page.tests[0]?.verdict.reasons[0]?.text).toMatch(
			/Reported on 24 Nov 2026: dental work\. The fit test of 20 Nov 2026 ended that day\./
		);
		const [row] = await own.test.db.select().from(wearer).where(eq(wearer.id, mine));
		expect(row?.version).toBe(1);
	});
});
