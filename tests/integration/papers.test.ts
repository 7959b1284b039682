import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { history } from '../../src/lib/server/records/history.ts';
import {
	recordsFor,
	searchRecords,
	type RecordSearch
} from '../../src/lib/server/records/search.ts';
import { verifyPaper } from '../../src/lib/server/records/verify.ts';
import { PAPERS } from '../../src/lib/server/papers/kinds.ts';
import { paperPdf } from '../../src/lib/server/papers/paper.ts';
import { anchorHead } from '../../src/lib/server/kernel/anchors.ts';
import { startRun } from '../../src/lib/server/inspection/runs.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { inspect } from '../support/work.ts';

const own = openYard();
let run: string;
const tech = () => own.yard.as(own.yard.people.technician);
const EVERYTHING: RecordSearch = {
	tag: null,
	who: null,
	place: null,
	group: null,
	from: null,
	to: null,
	before: null
};
const search = (change: Partial<RecordSearch> = {}) =>
	searchRecords(tech(), { ...EVERYTHING, ...change });

beforeAll(async () => {
	run = await inspect(tech(), 'HM-0001');
	await inspect(own.yard.as(own.yard.people.supervisor), 'HM-0002');
});

describe('a paper', () => {
	it('of an inspection has every step with its answer, and the entry that signed it', async () => {
		const paper = await PAPERS.inspection.of(tech(), run);
		expect(paper).toMatchObject({ title: 'Inspection', about: 'HM-0001', outcome: 'Passed' });
		expect(paper?.tables[0]?.rows.length).toBeGreaterThan(10);
		expect(paper?.tables[0]?.rows.every(([, , answer]) => answer === 'good')).toBe(true);
		const { pdf, name } = await paperPdf(tech(), paper as never, {
			anchor: null,
			origin: 'http://x.example'
		});
		expect(String.fromCharCode(...pdf.subarray(0, 5))).toBe('%PDF-');
		expect(name).toBe('inspection-hm-0001.pdf');
	});

	it('of an item tells all that happened to it; there is none of what is not whole', async () => {
		const paper = await PAPERS.item.of(tech(), 'HM-0001');
		expect(paper?.tables[0]?.rows.some(([, what]) => /Inspection signed/.test(what ?? ''))).toBe(
			true
		);
		await expectRefusal(
			Promise.resolve(PAPERS.inspection.of(tech(), randomUUID())),
			'not found',
			/no such/
		);
		const { id } = await startRun(tech(), { id: randomUUID(), tag: 'HM-0001' });
		await expectRefusal(
			Promise.resolve(PAPERS.inspection.of(tech(), id)),
			'not found',
			/not signed/
		);
		for (const kind of [
			'bench-test',
			'repair',
			'air-test',
			'wash-batch',
			'fill',
			'hand-out',
			'wearer',
			'task'
		] as const)
			await expectRefusal(
				Promise.resolve(PAPERS[kind].of(tech(), randomUUID())),
				'not found',
				/There is no/
			);
	});
});

describe('what stands on a paper', () => {
	it('is found by its entry and its hash, and stands', async () => {
		const [signed] = (await history(tech(), { subject: `run:${run}` })).filter(({ says }) =>
			says.startsWith('Inspection signed')
		);
		const { seq = 0, hash = '' } = signed ?? {};
		for (const typed of [`${seq}, ${hash.slice(0, 16)}`, `entry ${seq}`, hash, hash.slice(0, 9)])
			expect(await verifyPaper(tech(), typed), typed).toMatchObject([{ seq, faults: [] }]);
		const [wrong] = await verifyPaper(tech(), `${seq}, 00000000`);
		expect(wrong?.faults.join()).toMatch(/not of this record/);
		expect(await verifyPaper(tech(), '999999')).toEqual([]);
		await expectRefusal(verifyPaper(tech(), 'hello'), 'invalid', /number of the entry/);
	});

	it('does not stand where the record was changed behind the program', async () => {
		const [signed] = (await history(tech(), { subject: `run:${run}` })).filter(({ says }) =>
			says.startsWith('Inspection signed')
		);
		const { raw } = own.test;
		const change = (outcome: string) =>
			raw.begin(async (sql) => {
				await sql`set local session_replication_role = replica`;
				await sql`update inspection_run set outcome = ${outcome} where id = ${run}`;
			});
		await change('pass, watch');
		const [found] = await verifyPaper(tech(), String(signed?.seq));
		expect(found?.faults).toEqual(['The inspection that it tells of was changed since.']);
		await change('pass');
		expect((await verifyPaper(tech(), String(signed?.seq)))[0]?.faults).toEqual([]);
	});
});

describe('the search of the record', () => {
	it('finds by item, person, kind, place and day, and counts the same by day', async () => {
		const all = await search();
		expect(all.lines.length).toBeGreaterThan(3);
		const one = await search({ tag: 'hm-0001' });
		expect(new Set(one.lines.map(({ tag }) => tag))).toEqual(new Set(['HM-0001']));
		const by = await search({ who: own.yard.people.supervisor.id, group: 'inspections' });
		expect(new Set(by.lines.map(({ tag }) => tag))).toEqual(new Set(['HM-0002']));
		expect((await search({ group: 'air' })).lines).toEqual([]);
		expect((await search({ place: own.yard.place })).lines.length).toBeGreaterThan(3);
		expect((await search({ from: '2031-01-01' })).lines).toEqual([]);
		const { days } = await search({ from: '2026-01-01', to: '2099-12-31' });
		const counted = days.reduce((sum, { entries }) => sum + entries, 0);
		expect(counted).toBe(all.lines.length);
	});

	it('goes on to older ones, and hands over all with the steps', async () => {
		const { lines } = await search();
		const before = lines[1]?.seq ?? 0;
		expect((await search({ before })).lines[0]?.seq).toBe(lines[2]?.seq);
		const file = await recordsFor(tech(), EVERYTHING);
		expect(file.length).toBeGreaterThan(lines.length);
	});

	it('refuses days that run backwards and a tag that is none', async () => {
		await expectRefusal(
			search({ from: '2026-02-02', to: '2026-02-01' }),
			'invalid',
			/before the first/
		);
		await expectRefusal(search({ tag: 'HM-9999' }), 'not found', /HM-9999/);
	});
});

it('a paper is signed with the end of the log where the installation keeps such', async () => {
	const place = { key: `/tmp/${randomUUID()}.pem`, file: `/tmp/${randomUUID()}.jsonl` };
	const anchor = await anchorHead(own.test.db, place, 'certificate', new Date());
	const paper = await PAPERS.item.of(tech(), 'HM-0002');
	const { pdf } = await paperPdf(tech(), paper as never, { anchor, origin: 'http://x.example' });
	expect(pdf.length).toBeGreaterThan(2000);
});
