import { randomUUID } from 'node:crypto';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { itemModel, place, site, user } from '../../src/lib/server/db/schema/index.ts';
import { type Context } from '../../src/lib/server/kernel/context.ts';
import { loadSite } from '../../src/lib/server/kernel/site.ts';
import { saveItemModel } from '../../src/lib/server/register/models.ts';
import { savePlace } from '../../src/lib/server/site/places.ts';
import { saveRule } from '../../src/lib/server/site/rules.ts';
import { saveSite } from '../../src/lib/server/site/settings.ts';
import { startFromFile, writeSettings } from '../../src/lib/server/site/settings-file.ts';
import { saveTestHouse } from '../../src/lib/server/site/test-houses.ts';
import { freshDatabase, smallSite, type TestDatabase } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';

let one: TestDatabase;
let two: TestDatabase;
let from: Context;
let to: Context;
const NOW = new Date('2026-11-24T10:00:00Z');

const NARROWED_BY_NOTHING: {
	modelId: string | null;
	placeId: string | null;
	replaces: string | null;
} = {
	modelId: null,
	placeId: null,
	replaces: null
};

/** A site that has everything which a file takes along. */
async function furnished(): Promise<Context> {
	const yard = await smallSite(one.db);
	const boss = async () => ({ ...yard.as(yard.people.supervisor), site: await loadSite(one.db) });
	const hut = randomUUID();
	await savePlace(await boss(), {
		requestId: randomUUID(),
		id: hut,
		version: 0,
		name: 'Quay hut',
		kind: 'vehicle',
		storage: ['dry', 'shut'],
		responsible: yard.people.technician.id,
		floors: { 'full-face': 4 },
		above: true
	});
	const model = randomUUID();
	await saveItemModel(await boss(), {
		version: 0,
		card: {},
		requestId: randomUUID(),
		id: model,
		family: 'full-face',
		maker: 'Tern',
		name: 'Tern F1',
		mount: 'thread',
		ratedBar: null,
		holdDropBar: null,
		donning: { straps: ['Neck', 'Brow'], inlet: 'hose', holdSeconds: 8, ways: ['out'] },
		filterCount: 1,
		approved: ['Tern A2'],
		makerLines: [{ station: 'facepiece', text: 'Never folded.' }]
	});
	await saveSite(await boss(), {
		requestId: randomUUID(),
		version: 1,
		choices: {
			timeZone: 'Europe/Oslo',
			ruleSet: 'us',
			codeScheme: 'us',
			sealWays: 'one',
			workDays: [1, 2],
			benchMinutes: 90,
			holidays: [{ on: '2026-12-25', name: 'Christmas' }]
		}
	});
	for (const [scope, reason] of [
		[{ placeId: hut, modelId: model }, 'Salt'],
		[{ replaces: 'us-monthly', every: { months: 2 } }, 'Little used']
	] as const)
		await saveRule(await boss(), {
			requestId: randomUUID(),
			id: randomUUID(),
			version: 0,
			reason,
			meant: true,
			rule: {
				what: 'inspection',
				detail: '',
				every: { days: 9 },
				window: 2,
				families: [],
				usePattern: 'personal',
				...NARROWED_BY_NOTHING,
				...scope
			}
		});
	await saveTestHouse(await boss(), {
		requestId: randomUUID(),
		id: randomUUID(),
		version: 0,
		name: 'Corrie Test',
		takes: ['suits'],
		turnaroundDays: 12,
		closed: false
	});
	return boss();
}

/** A site that was begun a moment ago. */
async function begun(): Promise<Context> {
	const actor = { id: 'first', name: 'Nora', initials: 'NQ', role: 'admin' as const };
	await two.db.insert(user).values({ ...actor, email: 'nora@yard.example' });
	await two.db.insert(site).values({ name: 'This site', timeZone: 'Europe/London' });
	const proof = { at: NOW, by: 'password' as const };
	return { db: two.db, now: () => NOW, site: await loadSite(two.db), actor, proof };
}

const bytes = (content: unknown) =>
	new TextEncoder().encode(typeof content === 'string' ? content : JSON.stringify(content));
const start = (content: unknown) =>
	startFromFile(to, { requestId: randomUUID(), bytes: bytes(content) });
const sorted = (file: Awaited<ReturnType<typeof writeSettings>>) => ({
	...file,
	rules: [...file.rules].sort((a, b) => a.reason.localeCompare(b.reason))
});

beforeEach(async () => {
	await one?.close();
	await two?.close();
	one = await freshDatabase();
	two = await freshDatabase();
	from = await furnished();
	to = await begun();
});
afterAll(async () => {
	await one.close();
	await two.close();
});

describe('the settings of a site as a file', () => {
	it('start another one that gives the same file', async () => {
		const file = await writeSettings(from);
		expect(file).toMatchObject({
			site: { ruleSet: 'us', timeZone: 'Europe/Oslo', workDays: [1, 2], sealWays: 'one' },
			places: [
				{ name: 'Quay hut', kind: 'vehicle', floors: { 'full-face': 4 } },
				{ name: 'Shed', floors: { 'half-mask': 1 } }
			],
			testHouses: [{ name: 'Corrie Test', turnaroundDays: 12 }]
		});
		expect(file.rules).toHaveLength(2);
		await start(file);
		expect(sorted(await writeSettings(to))).toEqual(sorted(file));
		// The name stays its own, and nobody came along.
		expect((await loadSite(two.db)).name).toBe('This site');
		expect(await two.db.$count(user)).toBe(1);
	});

	it('are refused to a site that has something of its own', async () => {
		const file = await writeSettings(from);
		await start(file);
		await expectRefusal(start(file), 'conflict', /would mix them/);
	});

	it.each([
		['no JSON', () => 'hello', /no file with the settings/],
		['another file', () => ({ format: 'x' }), /no file with the settings/],
		[
			'a kind that there is not',
			(f: F) => ((f.models[0]!.family = 'kite'), f),
			/models\.0\.family/
		],
		['a zone that there is not', (f: F) => ((f.site.timeZone = 'Mars/Base'), f), /no time zone/],
		['no working day', (f: F) => ((f.site.workDays = []), f), /without a working day/],
		[
			'a place twice',
			(f: F) => (f.places.push(f.places[0]!), f),
			/places: “Quay hut” stands there twice/
		],
		[
			'a rule of no place of it',
			(f: F) => ((f.rules[0]!.place = 'Moon'), f),
			/rules\.0\.place: “Moon”/
		],
		['a field too many', (f: F) => ({ ...f, people: [] }), /people/],
		[
			'a looser rule without a reason',
			(f: F) => {
				for (const rule of f.rules) rule.reason = '';
				return f;
			},
			/say why/
		]
	])('with %s is refused, and nothing of it is taken', async (_, wrong, say) => {
		await expectRefusal(start(wrong(await writeSettings(from))), 'invalid', say);
		expect([await two.db.$count(place), await two.db.$count(itemModel)]).toEqual([0, 0]);
		expect(await loadSite(two.db)).toMatchObject({ version: 1, ruleSet: 'uk' });
	});
	type F = Awaited<ReturnType<typeof writeSettings>>;
});
