import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import {
	listRigs,
	noteRigEvent,
	type RigInput,
	rigPage,
	saveRig
} from '../../src/lib/server/air/airlines.ts';
import { noteWork } from '../../src/lib/server/air/sources.ts';
import { addCompressor } from '../support/air.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { addPiece } from '../support/yard.ts';

let source: string;
const own = openYard(async () => {
	source = await addCompressor(tech(), 'Shed air', new Date('2026-11-20T08:00:00Z'));
	await addPiece(own.test, own.yard, 'airline', 'AL-0001');
});

const { tech } = own;
const rig = (part: Partial<RigInput> = {}): RigInput => ({
	requestId: randomUUID(),
	tag: 'AL-0001',
	version: null,
	sourceId: source,
	dryer: 'adsorption',
	sorbentMonths: 6,
	alarm: 'CO',
	alarmPpm: 10,
	alarmDays: 30,
	regulatorBar: 6,
	boreMm: 13,
	lengthM: 60,
	fittingsM: 2,
	outlets: 2,
	leastBar: 4,
	wearing: 'tight-fitting',
	...part
});
const save = (part: Partial<RigInput> = {}) => saveRig(tech(), rig(part));
const note = (kind: 'sorbent' | 'alarm', doneOn: string, passed = true) =>
	noteRigEvent(tech(), {
		id: randomUUID(),
		tag: 'AL-0001',
		kind,
		doneOn,
		passed,
		note: ''
	});
const page = (wearers: number | null = null) => rigPage(tech(), 'AL-0001', wearers);

describe('an airline rig', () => {
	it('is put together once and changed by whoever saw the last version', async () => {
		expect((await page()).rig).toBeNull();
		await expectRefusal(note('sorbent', '2026-11-01'), 'conflict', /put together/);
		await expectRefusal(save({ boreMm: 0.5 }), 'invalid', /2 to 100 mm/);
		await expectRefusal(save({ outlets: 40 }), 'invalid', /1 to 12/);
		await expectRefusal(save({ sourceId: randomUUID() }), 'not found', /no such source/);
		await expectRefusal(save({ tag: 'HM-0001' }), 'invalid', /no airline/);
		await save();
		await expectRefusal(save(), 'conflict', /was changed meanwhile/);
		await save({ version: 1, lengthM: 50 });
		expect((await page()).rig).toMatchObject({ lengthM: 50, version: 2 });
	});

	it('may be breathed from once its tags are signed, and says what is against it', async () => {
		const first = await page();
		expect(first.judged?.verdict.outcome).toBe('fail');
		await note('sorbent', '2026-10-01');
		await note('alarm', '2026-11-10', false);
		expect((await page()).judged?.verdict.reasons[0]?.text).toMatch(/failed its last test/);
		await note('alarm', '2026-11-11');
		const good = await page();
		expect(good.judged?.verdict.outcome).toBe('pass');
		expect(good.judged?.events.map((e) => e.doneOn)).toEqual([
			'2026-11-11',
			'2026-11-10',
			'2026-10-01'
		]);
		await expectRefusal(note('alarm', '2026-11-25'), 'invalid', /later than today/);
		await expectRefusal(note('alarm', '24.11.2026'), 'invalid', /no date/);
	});

	it('with a narrow hose says which change would help', async () => {
		await save({ version: 2, boreMm: 6 });
		const { judged } = await page();
		expect(judged?.verdict.outcome).toBe('fail');
		expect(judged?.fixes.map((fix) => fix.change)).toContain('wider');
		await save({ version: 3, boreMm: 13 });
		expect((await page(3)).judged?.verdict.reasons[0]?.text).toMatch(/3 on 2 outlets/);
	});

	it('falls with its source', async () => {
		await noteWork(tech(), { id: randomUUID(), sourceId: source, what: 'New valve plate' });
		const [row] = await listRigs(tech());
		expect(row?.verdict?.outcome).toBe('fail');
		expect(row?.verdict?.reasons[0]?.text).toMatch(/Shed air: It was worked on/);
		await expect(own.test.raw`delete from rig_event`).rejects.toThrow(/append-only/);
	});
});
