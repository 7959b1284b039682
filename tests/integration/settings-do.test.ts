import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { waysAsked } from '../../src/core/fit/seal-check.ts';
import { besidePressure, besideTemperature } from '../../src/core/units/beside.ts';
import { enterAirTest } from '../../src/lib/server/air/sources.ts';
import { type Context, todayOf } from '../../src/lib/server/kernel/context.ts';
import { loadSite, type Site } from '../../src/lib/server/kernel/site.ts';
import { filterLot, filterModel, filterPair } from '../../src/lib/server/db/schema/index.ts';
import { openPost } from '../../src/lib/server/notices/mail.ts';
import { digestPreview, makeDigests } from '../../src/lib/server/notices/make.ts';
import { type Choices, saveSite } from '../../src/lib/server/site/settings.ts';
import { planFacts } from '../../src/lib/server/plan/facts.ts';
import { problemOfSite } from '../../src/core/plan/site-problem.ts';
import { load as itemLoad } from '../../src/routes/items/[tag]/+page.server.ts';
import { load as labelLoad } from '../../src/routes/filters/pairs/[tag]/label/+page.server.ts';
import { addCompressor, GOOD_AIR } from '../support/air.ts';
import { openYard } from '../support/database.ts';
import { addPiece, inspected } from '../support/yard.ts';

/** A pair of filters with the codes of both schemes, and something that falls due on a Thursday. */
const own = openYard(async ({ test, yard }) => {
	const [modelId, lotId] = [randomUUID(), randomUUID()];
	await test.db.insert(filterModel).values({
		id: modelId,
		maker: 'T',
		name: 'Two codes',
		mount: 'thread',
		codeEn: 'A2',
		codeUs: 'OV',
		massG: 100
	});
	await test.db
		.insert(filterLot)
		.values({ id: lotId, modelId, lot: 'L1', useBy: '2029-12-31', sealedQuantity: 0 });
	await test.db.insert(filterPair).values({
		id: randomUUID(),
		lotId,
		itemId: yard.masks[0] ?? '',
		filters: 2,
		openedOn: '2026-11-24',
		initials: 'T',
		openedBy: yard.people.technician.id
	});
	await addPiece(test, yard, 'ba-set', 'BA-0801');
	await addPiece(test, yard, 'full-face', 'FF-0801');
	await inspected(test, yard, ['FF-0801'], new Date('2026-11-24T08:00:00Z'));
});
/** Tuesday, late in the evening of London. */
const LATE = new Date('2026-11-24T23:30:00Z');
const MORNING = new Date('2026-11-24T07:30:00Z');

/** Somebody of a role, with the choices of the site as they are now. */
const as = async (who: 'supervisor' | 'technician', now = MORNING): Promise<Context> => ({
	...own.yard.as(own.yard.people[who], now),
	site: await loadSite(own.test.db)
});
async function choose(choices: Partial<Choices>): Promise<Site> {
	const { version } = await loadSite(own.test.db);
	await saveSite(await as('supervisor'), { requestId: randomUUID(), version, choices });
	return loadSite(own.test.db);
}
/** What a page would be given. */
async function loaded(load: (event: never) => unknown, params: object) {
	const { actor, site, db } = await as('technician');
	const event = {
		params,
		url: new URL('http://a/'),
		locals: { actor, site, db },
		request: new Request('http://a/')
	};
	return (await load(event as never)) as Record<string, unknown>;
}
const wakes = async (hour: string) =>
	makeDigests({
		db: own.test.db,
		now: () => new Date(`2026-11-24T${hour}:30:00Z`),
		site: await loadSite(own.test.db)
	});
const problem = async () => problemOfSite(await planFacts(await as('technician'), 60));

/** What each choice of a site does: two of its values, and something that differs between them. */
const DOES = {
	name: {
		values: ['North yard', 'South yard'],
		shows: async () =>
			(await digestPreview(await as('supervisor'), own.yard.people.technician.id))?.subject
	},
	timeZone: {
		values: ['Europe/London', 'Asia/Tokyo'],
		shows: async () => todayOf(await as('technician', LATE))
	},
	ruleSet: {
		values: ['uk', 'us'],
		// Published: carbon monoxide 5 ppm by EN 12021, 10 ppm by grade D, from memory.
		shows: async () => {
			const source = await addCompressor(await as('technician'), `C ${randomUUID()}`, null);
			const sample = { ...GOOD_AIR, coPpm: 8 };
			const test = {
				id: randomUUID(),
				sourceId: source,
				takenAt: MORNING,
				sample,
				laboratory: 'L'
			};
			return (await enterAirTest(await as('technician'), test)).outcome;
		}
	},
	codeScheme: {
		values: ['en', 'us'],
		shows: async () => (await loaded(labelLoad, { tag: 'FP-0001' }))['code']
	},
	pressureUnit: {
		values: ['bar', 'psi'],
		shows: async () => besidePressure(300, (await loadSite(own.test.db)).pressureUnit)
	},
	temperatureUnit: {
		values: ['°C', '°F'],
		shows: async () => besideTemperature(43, (await loadSite(own.test.db)).temperatureUnit)
	},
	sealWays: {
		values: ['both', 'one'],
		shows: async () => waysAsked(['in', 'out'], (await loadSite(own.test.db)).sealWays).length
	},
	setSchool: {
		values: ['bench', 'worn'],
		shows: async () => (await loaded(itemLoad, { tag: 'BA-0801' }))['procedures']
	},
	workDays: {
		values: [[1, 2, 3, 4, 5], [1]],
		shows: async () => (await problem()).days
	},
	benchMinutes: {
		values: [240, 4],
		shows: async () => (await problem()).workers[0]?.minutes[0]
	},
	holidays: {
		values: [[], [{ on: '2026-12-24', name: 'Yule' }]],
		shows: async () => (await problem()).days
	},
	digestHour: {
		values: [6, 9],
		shows: async () => {
			await own.test.raw`delete from notice`;
			return (await wakes('07')) > 0;
		}
	}
} satisfies {
	[K in keyof Choices]: { values: [Choices[K], Choices[K]]; shows: () => Promise<unknown> };
};

describe('every choice of a site does what it says', () => {
	it.each(Object.entries(DOES))('%s', async (key, { values, shows }) => {
		openPost({ way: 'mailbox', deliver: () => Promise.resolve(), address: '' });
		const shown: unknown[] = [];
		for (const value of values) {
			const site = await choose({ [key]: value });
			expect(site[key as keyof Site]).toEqual(value);
			shown.push(await shows());
		}
		openPost(null);
		// The next one begins as this did.
		await choose({ [key]: values[0] });
		expect(shown[0]).toBeDefined();
		expect(shown[1]).not.toEqual(shown[0]);
	});
});
