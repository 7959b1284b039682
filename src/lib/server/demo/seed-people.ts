import { asc, eq, inArray } from 'drizzle-orm';
import { recordOf } from '../../../core/data/family-records.ts';
import { beforeTest } from '../../../core/fit/agents.ts';
import { FIT_PASS, LEAST_AMBIENT_PER_CM3, MOST_FACTOR } from '../../../core/fit/fit-factor.ts';
import { fitProtocol, judgeProtocol } from '../../../core/fit/protocols.ts';
import {
	type CounterReading,
	factorsOf,
	measuredBy,
	sequenceOf
} from '../../../core/fit/sequence.ts';
import { plusDays } from '../../../core/plan/calendar.ts';
import {
	authorisation,
	fitChunk,
	fitSession,
	fitTest,
	item,
	itemModel,
	personalItem,
	wearer,
	wearerChange,
	wearerPlace
} from '../db/schema/index.ts';
import { counterSeconds } from '../instruments/simulated/fit-counter.ts';
import { Chance } from '../../../core/stats/chance.ts';
import { PEOPLE } from './scenario.ts';
import { AUTHORISED, type FaceSize, FITS, SPECIAL, WEARER_NAMES } from './scenario-people.ts';
import type { Seed } from './seeding.ts';

/** A source of its own, so that people do not change what else the demo is. */
const SEED = 60_114;
const PROTOCOL = fitProtocol('uk-seven');
/** Tests of the last weeks that were made on a counter here, with their readings. */
const ON_COUNTER = 5;
/** From this place in the list on people have a canister mask of their own. */
const OWNERS_FROM = 10;

interface Person {
	id: string;
	number: string;
	face: FaceSize;
	index: number;
}
type Mask = { id: string; name: string; family: string };

/** Wearers with their tests of two years, what they have of their own, and who may do which job. */
export async function seedPeople(seed: Seed): Promise<void> {
	const chance = new Chance(SEED);
	const people = await seedWearers(seed, chance);
	await seedTests(seed, chance, people);
	await seedOwn(seed, people);
	await seedAuthorisations(seed, chance);
}

/** A number round zero, most within one (Irwin-Hall). */
const spread = (chance: Chance) =>
	Array.from({ length: 6 }, () => chance.next()).reduce((sum, n) => sum + n, -3) * 1.4;

async function seedWearers(seed: Seed, chance: Chance): Promise<Person[]> {
	const places = [...seed.places.values()];
	const people = WEARER_NAMES.map((name, index): Person & { name: string } => ({
		id: chance.uuid(),
		number: `W${101 + index}`,
		name,
		face: SPECIAL[index]?.face ?? chance.pick(['S', 'M', 'M', 'M', 'L'] as const),
		index
	}));
	await seed.tx.insert(wearer).values(
		people.map(({ id, number, name, index }) => {
			const { account, beard, eyewear, clearedDays, trainedDays } = SPECIAL[index] ?? {};
			return {
				id,
				number,
				name,
				userId: account ? seed.person(account) : null,
				beard: beard ?? false,
				eyewear: eyewear ?? chance.next() < 0.2,
				clearedUntil: plusDays(seed.today, clearedDays ?? chance.int(60, 700)),
				trainedUntil: plusDays(seed.today, trainedDays ?? chance.int(40, 340))
			};
		})
	);
	await seed.tx
		.insert(wearerPlace)
		.values(people.map(({ id }) => ({ wearerId: id, placeId: chance.pick(places) })));
	for (const { id, number, index } of people) {
		const { changed } = SPECIAL[index] ?? {};
		if (!changed) continue;
		const at = seed.moment(changed.days);
		await seed.tx.insert(wearerChange).values({
			id: chance.uuid(),
			wearerId: id,
			what: changed.what,
			reportedOn: plusDays(seed.today, -changed.days),
			reportedAt: at,
			reportedBy: seed.person('ilse')
		});
		seed.happen({
			action: 'wearer.change-reported',
			by: seed.person('ilse'),
			at,
			of: id,
			payload: { number, what: changed.what }
		});
	}
	return people;
}

/** True factors of somebody in a mask, movement by movement. */
function truth(chance: Chance, person: Person, mask: Mask, size: FaceSize): Record<string, number> {
	const { own, other } = FITS[mask.name] ?? { own: 4, other: 1 };
	const kind = recordOf(mask.family).fit ?? 'half';
	const middle = (size === person.face ? own : other) * FIT_PASS.uk[kind];
	const face = Math.exp(0.55 * spread(chance));
	return Object.fromEntries(
		PROTOCOL.exercises.map(({ key }) => {
			const moved = key === 'bend' || key === 'talk' ? 0.75 : 1;
			return [key, middle * face * moved * Math.exp(0.16 * spread(chance))];
		})
	);
}

async function seedTests(seed: Seed, chance: Chance, people: readonly Person[]): Promise<void> {
	const masks = (
		await seed.tx
			.select({ id: itemModel.id, name: itemModel.name, family: itemModel.family })
			.from(itemModel)
			.where(inArray(itemModel.name, Object.keys(FITS)))
	).sort((a, b) => a.name.localeCompare(b.name));
	const named = (name: string) => masks.find((one) => one.name === name);
	const testers = ['ilse', 'odd'].map((key) => seed.person(key));
	let onCounter = 0;
	for (const person of people) {
		const special = SPECIAL[person.index] ?? {};
		if (special.untested || special.beard) continue;
		const last = special.testedDays ?? chance.int(8, 350);
		const first = chance.pick(['Tesselow H1', 'Tesselow H2 soft', 'Brannick Duo'] as const);
		const full = person.index < 6 || chance.next() < 0.45;
		for (const daysAgo of [last + 365, last]) {
			const tried = new Set<string>();
			const wanted = [first, 'Tesselow H2 soft', 'Tesselow H1'];
			let fits = false;
			// A failed test goes on: the mask put on anew, then another one.
			for (const name of wanted) {
				const mask = named(name);
				if (!mask || fits || tried.has(name)) continue;
				tried.add(name);
				const size = FITS[name]?.sizes.includes(person.face) ? person.face : 'M';
				const made = { seed, chance, person, mask, size, by: chance.pick(testers), daysAgo };
				fits = (await seedTest(made)) || (await seedTest(made));
			}
			const face = full ? named('Tesselow F3') : undefined;
			if (face)
				await seedTest({
					seed,
					chance,
					person,
					mask: face,
					size: person.face,
					by: chance.pick(testers),
					daysAgo,
					...(daysAgo === last && last < 60 && onCounter++ < ON_COUNTER ? { counted: true } : {})
				});
		}
	}
}

interface MadeTest {
	seed: Seed;
	chance: Chance;
	person: Person;
	mask: Mask;
	size: FaceSize;
	by: string;
	daysAgo: number;
	/** With its readings, as a test that was made on a counter here. */
	counted?: boolean;
}

/** One test of somebody, judged as any other. @returns whether it was passed */
async function seedTest(test: MadeTest): Promise<boolean> {
	const { seed, chance, person, mask, size, by, daysAgo, counted } = test;
	const kind = recordOf(mask.family).fit ?? 'half';
	const fit = truth(chance, person, mask, size);
	const at = seed.moment(daysAgo);
	const session = counted ? await seedSession(test, kind, fit, at) : null;
	const factors =
		session?.factors ??
		Object.fromEntries(Object.entries(fit).map(([key, f]) => [key, Math.min(MOST_FACTOR, f)]));
	const { outcome, overall, reasons } = judgeProtocol(PROTOCOL, factors, kind);
	const passed = outcome === 'pass';
	const on = plusDays(seed.today, -daysAgo);
	await seed.tx.insert(fitTest).values({
		id: chance.uuid(),
		wearerId: person.id,
		modelId: mask.id,
		size,
		mask: kind,
		method: 'quantitative',
		ruleSet: 'uk',
		protocol: PROTOCOL.key,
		sessionId: session?.id ?? null,
		factors,
		overall,
		passed,
		reasons,
		testedOn: on,
		testedAt: session ? at : null,
		fromPaper: !session,
		signedBy: by,
		signedAt: at
	});
	seed.happen({
		action: 'fit-test.signed',
		by,
		at,
		of: person.id,
		payload: {
			number: person.number,
			model: mask.name,
			size,
			method: 'quantitative',
			passed,
			overall,
			on
		}
	});
	return passed;
}

async function seedSession(
	{ seed, chance, person, mask, size, by }: MadeTest,
	kind: 'half' | 'full',
	fit: Record<string, number>,
	at: Date
) {
	const steps = sequenceOf(PROTOCOL);
	const readings: CounterReading[] = counterSeconds(
		{ seed: chance.int(1, 100_000), roomPerCm3: 6500, driftPerMin: 0.008, fit, fault: 'none' },
		steps.map(({ line, seconds, exercise }) => ({ line, seconds, label: exercise })),
		{ from: 0, to: steps.length - 1, run: 1, startS: 0 }
	);
	const id = chance.uuid();
	await seed.tx.insert(fitSession).values({
		id,
		wearerId: person.id,
		modelId: mask.id,
		size,
		mask: kind,
		method: 'quantitative',
		ruleSet: 'uk',
		protocol: PROTOCOL.key,
		before: beforeTest(null).map(({ key }) => key),
		counter: 1,
		instrument: 'GREVAN,FIT-COUNTER,SIMULATED,1',
		leastRoom: LEAST_AMBIENT_PER_CM3,
		startedBy: by,
		startedAt: at,
		begunAt: at,
		endedAt: new Date(at.getTime() + readings.length * 1000),
		ended: 'whole'
	});
	await seed.tx.insert(fitChunk).values({ sessionId: id, first: 0, readings });
	return { id, factors: factorsOf(measuredBy(PROTOCOL, readings)) };
}

/** Canister masks that are their wearers' own. */
async function seedOwn(seed: Seed, people: readonly Person[]): Promise<void> {
	const own = await seed.tx
		.select({ id: item.id, inUseSince: item.inUseSince })
		.from(item)
		.where(eq(item.family, 'canister-mask'))
		.orderBy(asc(item.tag));
	const given = own.flatMap(({ id, inUseSince }, i) => {
		const who = people[OWNERS_FROM + i];
		return who ? [{ itemId: id, wearerId: who.id, since: inUseSince }] : [];
	});
	if (given.length === 0) return;
	await seed.tx.insert(personalItem).values(given);
	await seed.tx
		.update(item)
		.set({ usePattern: 'personal' })
		.where(
			inArray(
				item.id,
				given.map(({ itemId }) => itemId)
			)
		);
}

async function seedAuthorisations(seed: Seed, chance: Chance): Promise<void> {
	for (const [person, jobs, sinceDays, untilDays, evidence] of AUTHORISED)
		for (const job of jobs) {
			const id = chance.uuid();
			const from = plusDays(seed.today, -sinceDays);
			const until = untilDays === null ? null : plusDays(seed.today, untilDays);
			const at = seed.moment(sinceDays);
			await seed.tx.insert(authorisation).values({
				id,
				userId: seed.person(person),
				job,
				families: [],
				modelIds: [],
				fromDay: from,
				until,
				evidence,
				givenBy: seed.person('maud'),
				givenAt: at
			});
			seed.happen({
				action: 'authorisation.given',
				by: seed.person('maud'),
				at,
				of: id,
				payload: {
					person: PEOPLE.find(({ key }) => key === person)?.name ?? person,
					job,
					scope: 'everything',
					from,
					until,
					evidence
				}
			});
		}
}
