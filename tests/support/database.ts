import { readdirSync } from 'node:fs';
import { randomBytes, randomUUID } from 'node:crypto';
import { afterAll, afterEach, beforeAll, beforeEach } from 'vitest';
import { grantApplication } from '../../src/lib/server/db/grants.ts';
import { type Database, migrateDatabase, openDatabase } from '../../src/lib/server/db/client.ts';
import {
	filterLot,
	filterModel,
	item,
	itemModel,
	partLot,
	place,
	placeFloor,
	site,
	user
} from '../../src/lib/server/db/schema/index.ts';
import type { Actor, Context } from '../../src/lib/server/kernel/context.ts';
import type { Role } from '../../src/lib/server/kernel/permissions.ts';
import { type Site, UNNAMED } from '../../src/lib/server/kernel/site.ts';
import { rebuildState } from '../../src/lib/server/readiness/rebuild.ts';
import postgres from 'postgres';

export const SITE: Site = {
	...UNNAMED,
	name: 'Test yard',
	twoStepRoles: [],
	setUpAt: new Date('2026-01-05T08:00:00Z')
};

export interface TestDatabase {
	url: string;
	db: Database;
	/** Plain SQL as the owner, for what only an intruder would do. */
	raw: postgres.Sql;
	close: () => Promise<void>;
}

const MIGRATIONS = 'src/lib/server/db/migrations';
/** A cluster that is used again may hold the one of earlier migrations. */
const TEMPLATE = `t_template_${readdirSync(MIGRATIONS).length}`;
/** Any number that nothing else on the test cluster locks. */
const MAKING_TEMPLATE = 41_000;

/** The same database by a role such as the application has. */
function asApplication(owner: string): string {
	const url = new URL(owner);
	url.username = 'grevan_test';
	return url.href;
}

/** Clones a database that was migrated once for all files of tests. */
async function fromTemplate(admin: string, root: postgres.Sql, name: string): Promise<void> {
	// One at a time: a database is not cloned while somebody else is in it.
	await root`select pg_advisory_lock(${MAKING_TEMPLATE})`;
	try {
		const [made] = await root`select 1 from pg_database where datname = ${TEMPLATE}`;
		if (!made) {
			await root.unsafe(`create database ${TEMPLATE}_new`);
			const made = admin.replace(/\/[^/]*$/, `/${TEMPLATE}_new`);
			await migrateDatabase(made, MIGRATIONS);
			await grantApplication(made, asApplication(made));
			await root.unsafe(`alter database ${TEMPLATE}_new rename to ${TEMPLATE}`);
		}
		await root.unsafe(`create database ${name} template ${TEMPLATE}`);
	} finally {
		await root`select pg_advisory_unlock(${MAKING_TEMPLATE})`;
	}
}

/** A fresh, migrated database of its own on the test cluster. */
export async function freshDatabase(): Promise<TestDatabase> {
	const admin = process.env.TEST_DATABASE_URL;
	if (!admin) throw new Error('TEST_DATABASE_URL is not set: run the tests by npm test.');
	const name = `t_${randomBytes(6).toString('hex')}`;
	const root = postgres(admin, { max: 1, onnotice: () => {} });
	await fromTemplate(admin, root, name);
	const owner = admin.replace(/\/[^/]*$/, `/${name}`);
	// Services are tested with what the application may, and no more.
	const url = asApplication(owner);
	const { db, close } = openDatabase(url);
	const raw = postgres(owner, { max: 2, onnotice: () => {} });
	return {
		url,
		db,
		raw,
		close: async () => {
			await close();
			await raw.end();
			await root.unsafe(`drop database ${name} with (force)`);
			await root.end();
		}
	};
}

/** A site with two masks, filters, parts and one person of each role. */
export async function smallSite(db: Database) {
	const people = Object.fromEntries(
		await Promise.all(
			(['viewer', 'technician', 'supervisor', 'admin'] as Role[]).map(async (role) => {
				const id = `user-${role}`;
				await db
					.insert(user)
					.values({ id, name: `The ${role}`, email: `${role}@test.example`, role, initials: 'TT' });
				return [role, { id, name: `The ${role}`, initials: 'TT', role } satisfies Actor];
			})
		)
	) as Record<Role, Actor>;
	const second: Actor = {
		id: 'user-second',
		name: 'The second',
		initials: 'SC',
		role: 'supervisor'
	};
	await db
		.insert(user)
		.values({ id: second.id, name: second.name, email: 'second@test.example', role: 'supervisor' });
	const ids = { place: randomUUID(), model: randomUUID(), a2: randomUUID(), k2: randomUUID() };
	await db.insert(site).values(SITE);
	await db.insert(place).values({ id: ids.place, name: 'Shed' });
	await db.insert(placeFloor).values({ placeId: ids.place, family: 'half-mask', floor: 1 });
	await db.insert(itemModel).values({
		id: ids.model,
		family: 'half-mask',
		maker: 'T',
		name: 'T1',
		mount: 'quarter turn',
		// Its filters are not followed, so that a mask is ready by its inspection alone.
		filterCount: 0
	});
	const masks = [randomUUID(), randomUUID()];
	await db.insert(item).values(
		masks.map((id, i) => ({
			id,
			tag: `HM-000${i + 1}`,
			family: 'half-mask',
			modelId: ids.model,
			size: 'M',
			placeId: ids.place,
			inUseSince: '2025-01-01'
		}))
	);
	await rebuildState(db, masks, SITE);
	await db.insert(filterModel).values([
		{
			id: ids.a2,
			maker: 'T',
			name: 'T A2',
			mount: 'quarter turn',
			codeEn: 'A2',
			codeUs: 'OV',
			massG: 80
		},
		{
			id: ids.k2,
			maker: 'T',
			name: 'T K2',
			mount: 'quarter turn',
			codeEn: 'K2',
			codeUs: 'AM',
			massG: 80
		}
	]);
	const lots = { a2: randomUUID(), old: randomUUID(), k2: randomUUID() };
	await db.insert(filterLot).values([
		{ id: lots.a2, modelId: ids.a2, lot: 'L1', useBy: '2030-01-01', sealedQuantity: 4 },
		{ id: lots.old, modelId: ids.a2, lot: 'L0', useBy: '2020-01-01', sealedQuantity: 4 },
		{ id: lots.k2, modelId: ids.k2, lot: 'L2', useBy: '2030-01-01', sealedQuantity: 4 }
	]);
	const disc = randomUUID();
	await db
		.insert(partLot)
		.values({ id: disc, part: 'disc-exhalation', lot: 'D1', quantity: 1, useBy: '2030-01-01' });
	const as = (actor: Actor, now = new Date('2026-11-24T10:00:00Z')): Context => ({
		db,
		actor,
		site: SITE,
		now: () => now,
		proof: { at: now, by: 'pin' }
	});
	return {
		people: { ...people, second },
		place: ids.place,
		model: ids.model,
		masks,
		lots,
		disc,
		as
	};
}

export type SmallSite = Awaited<ReturnType<typeof smallSite>>;

/** The database and the site of a file of tests, made before its first and taken down after its last. */
export interface Yard {
	test: TestDatabase;
	yard: SmallSite;
	/** The technician at a moment. */
	tech: (now?: Date) => Context;
}

/**
 * Opens them for the file that calls it.
 * @param furnish what its tests find there beyond the site itself
 * @param every anew for each test, or once for the file
 */
export function openYard(
	furnish: (yard: Yard) => Promise<void> = async () => {},
	every: 'file' | 'test' = 'file'
): Yard {
	const own = { tech: (now) => own.yard.as(own.yard.people.technician, now) } as Yard;
	const [before, after] = every === 'file' ? [beforeAll, afterAll] : [beforeEach, afterEach];
	before(async () => {
		own.test = await freshDatabase();
		own.yard = await smallSite(own.test.db);
		await furnish(own);
	});
	after(() => own.test.close());
	return own;
}
