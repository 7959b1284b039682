import { randomUUID } from 'node:crypto';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { DEFAULT_FACTS, type HazardFacts } from '../../src/core/hazards/facts.ts';
import { siteSubstance } from '../../src/lib/server/db/schema/index.ts';
import { decideHere } from '../../src/lib/server/hazards/plans.ts';
import {
	exportSubstances,
	importSubstances,
	previewImport,
	saveSubstance,
	type SaveSubstance,
	searchSubstances,
	substancePage
} from '../../src/lib/server/hazards/substances.ts';
import {
	freshDatabase,
	smallSite,
	type SmallSite,
	type TestDatabase
} from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';

let test: TestDatabase;
let yard: SmallSite;
const boss = () => yard.as(yard.people.supervisor);
const bytes = (text: string) => new TextEncoder().encode(text);
const save = (part: Partial<SaveSubstance> = {}, context = boss()) =>
	saveSubstance(context, {
		id: randomUUID(),
		key: 'styrene',
		edit: { limits: { uk: { twa: 20, unit: 'ppm' } } },
		why: 'new edition of the list',
		version: 0,
		...part
	});

beforeEach(async () => {
	await test?.close();
	test = await freshDatabase();
	yard = await smallSite(test.db);
});
afterAll(() => test.close());

describe('a corrected value', () => {
	const facts: HazardFacts = {
		...DEFAULT_FACTS,
		ruleSet: 'uk',
		contaminants: [
			{
				substance: 'styrene',
				name: 'Styrene',
				form: 'vapour',
				concentration: { value: 160, unit: 'ppm' }
			}
		]
	};

	it('counts in every decision from then on, and the old one stays with who, when and why', async () => {
		expect((await decideHere(test.db, facts)).hazardRatio).toBeCloseTo(1.6, 9);
		await save();
		expect((await decideHere(test.db, facts)).hazardRatio).toBeCloseTo(8, 9);
		const page = await substancePage(test.db, 'styrene');
		expect(page.substance.limits).toMatchObject({ uk: { twa: 20 }, us: { twa: 100 } });
		expect(page.substance.boilingPointC).toBe(145.2);
		expect(page.changes.map(({ change, by }) => [change.field, change.why, by])).toEqual([
			['limits', 'new edition of the list', 'The supervisor']
		]);
		expect(page.changes[0]?.change.before).toMatchObject({ uk: { twa: 100 } });
		expect(page.substance.origins?.limitUk?.source).toContain('new edition');
		await expect(test.raw`update substance_change set why = 'x'`).rejects.toThrow(/append-only/);
	});

	it('is saved once for a retry, and not over a newer one', async () => {
		const id = randomUUID();
		await save({ id });
		await save({ id });
		expect(await test.db.select().from(siteSubstance)).toHaveLength(1);
		await expectRefusal(save(), 'conflict', /Styrene was changed meanwhile/);
		await save({ version: 1, edit: { lelPercent: 1.1 } });
		expect((await substancePage(test.db, 'styrene')).substance).toMatchObject({
			lelPercent: 1.1,
			limits: { uk: { twa: 20 } }
		});
	});

	it('is refused to a technician, and without a reason', async () => {
		await expectRefusal(save({}, yard.as(yard.people.technician)), 'forbidden', /technician/);
		await expectRefusal(save({ why: ' ' }), 'invalid', /Say why/);
	});
});

describe('a substance of the site’s own', () => {
	const own = {
		name: 'Hull wash',
		form: 'vapour' as const,
		limits: { uk: { twa: 20, unit: 'ppm' as const } }
	};
	it('is found, judged with, and exported', async () => {
		const key = await save({
			key: null,
			edit: {
				...own,
				synonyms: ['slip soap'],
				molarMassGPerMol: 120,
				boilingPointC: 140,
				organic: true,
				en: 'A'
			}
		});
		expect(key).toBe('hull-wash');
		expect((await searchSubstances(test.db, 'SOAP'))[0]?.name).toBe('Hull wash');
		expect((await searchSubstances(test.db, '100-42'))[0]?.key).toBe('styrene');
		const decision = await decideHere(test.db, {
			...DEFAULT_FACTS,
			ruleSet: 'uk',
			contaminants: [
				{
					substance: key,
					name: 'Hull wash',
					form: 'vapour',
					concentration: { value: 100, unit: 'ppm' }
				}
			]
		});
		expect(decision.hazardRatio).toBeCloseTo(5, 9);
		expect(await exportSubstances(test.db, 'own')).toMatch(
			/^name,synonyms,CAS[\s\S]*Hull wash,slip soap/
		);
		await expectRefusal(save({ key: null, edit: own }), 'conflict', /already holds Hull wash/);
		await expectRefusal(
			save({ key: null, edit: { ...own, name: 'Styrene' } }),
			'conflict',
			/already holds Styrene/
		);
		await expectRefusal(
			save({ key: null, edit: { ...own, name: 'X', cas: '1-2-3' } }),
			'invalid',
			/no CAS number/
		);
	});
});

describe('an import', () => {
	const file = (rows: string[]) => bytes(['name;form;unit;UK limit 8 h;IDLH', ...rows].join('\n'));
	const good = file(['Alpha;vapour;ppm;1,5;', 'Beta;dust;mg/m3;4;100']);
	const bad = file([
		'Alpha;vapour;ppm;1,5;',
		'Gamma;steam;ppm;1;',
		'Styrene;vapour;ppm;1;',
		'alpha;gas;ppm;2;'
	]);

	it('is read for nobody who may not do it', async () => {
		await expectRefusal(
			previewImport(yard.as(yard.people.technician), good),
			'forbidden',
			/supervisor/
		);
	});

	it('shows what it would do before it does it', async () => {
		const preview = await previewImport(boss(), bad);
		expect(preview).toMatchObject({
			rows: 4,
			separator: 'semicolon',
			decimalComma: true,
			encoding: 'UTF-8'
		});
		expect(preview.added.map((row) => row.name)).toEqual(['Alpha']);
		expect(preview.faults.map((f) => `${f.row} ${f.column}: ${f.message}`)).toEqual([
			expect.stringMatching(/^3 form: “steam” is none of/),
			expect.stringMatching(/^4 name: Styrene is a shipped substance/),
			expect.stringMatching(/^5 name: alpha stands in row 2 already/)
		]);
		expect(await test.db.select().from(siteSubstance)).toHaveLength(0);
	});

	it('takes all or nothing, leaves bad rows out when asked, and acts once', async () => {
		const input = { id: randomUUID(), why: 'supplier', leaveOutBad: false };
		await expectRefusal(
			importSubstances(boss(), { ...input, file: bad }),
			'invalid',
			/3 cells are at fault/
		);
		expect(await test.db.select().from(siteSubstance)).toHaveLength(0);
		await importSubstances(boss(), { ...input, file: good });
		await importSubstances(boss(), { ...input, file: good });
		expect((await substancePage(test.db, 'beta')).substance).toMatchObject({
			limits: { uk: { twa: 4, unit: 'mg/m3' } },
			idlh: { value: 100, unit: 'mg/m3' }
		});
		const again = await previewImport(boss(), good);
		expect([again.added.length, again.replaced.length]).toEqual([0, 2]);
		expect(
			await importSubstances(boss(), { ...input, id: randomUUID(), file: bad, leaveOutBad: true })
		).toEqual({ imported: 1 });
		await expectRefusal(
			importSubstances(yard.as(yard.people.technician), { ...input, file: good }),
			'forbidden',
			/technician/
		);
	});

	it('that replaces makes a page that was open before it stale', async () => {
		const input = { why: 'supplier', leaveOutBad: false, file: good };
		await importSubstances(boss(), { ...input, id: randomUUID() });
		const { version } = await substancePage(test.db, 'beta');
		await importSubstances(boss(), { ...input, id: randomUUID() });
		await expectRefusal(
			save({ key: 'beta', version, edit: { lelPercent: 1 } }),
			'conflict',
			/changed meanwhile/
		);
	});

	it('of 50,000 rows is taken whole', async () => {
		const rows = Array.from({ length: 50_000 }, (_, i) => `Mix ${i};vapour;ppm;${i + 1};`);
		const input = { id: randomUUID(), why: 'list', leaveOutBad: false, file: file(rows) };
		expect(await importSubstances(boss(), input)).toEqual({ imported: 50_000 });
		expect((await searchSubstances(test.db, 'mix 49999'))[0]?.limits.uk?.twa).toBe(50_000);
	}, 60_000);
});
