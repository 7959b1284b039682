import { and, asc, desc, eq, ilike, inArray, isNull, or } from 'drizzle-orm';
import {
	type FaceChange,
	fitUntil,
	judgeFitTest,
	type ReportedChange
} from '../../../core/people/fit-standing.ts';
import { groupBy } from '../../../core/group-by.ts';
import type { Connection } from '../db/client.ts';
import { containing } from '../db/queries/contains.ts';
import {
	fitTest,
	itemModel,
	place,
	user,
	wearer,
	wearerChange,
	wearerPlace
} from '../db/schema/index.ts';
import { type Context, todayOf } from '../kernel/context.ts';
import { may, requirePermission } from '../kernel/permissions.ts';
import { ownThings } from './own-data.ts';
import { brokenConstraint, Refusal, stale } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';

/** Wearers shown at once; more are found by typing. */
const SHOWN = 5000;

export interface WearerInput {
	requestId: string;
	id: string;
	/** 0 for a new one; else the version that the page was loaded with. */
	version: number;
	number: string;
	name: string;
	userId: string | null;
	eyewear: boolean;
	beard: boolean;
	clearedUntil: string | null;
	trainedUntil: string | null;
	placeIds: string[];
}

/** Wearers by name, each with how their fit tests stand today. */
export async function listWearers(context: Context, text = '') {
	requirePermission(context.actor.role, 'see wearers');
	const { db } = context;
	const asOf = todayOf(context);
	const like = containing(text.trim());
	const rows = await db
		.select()
		.from(wearer)
		.where(
			and(
				isNull(wearer.leftOn),
				text.trim() ? or(ilike(wearer.name, like), ilike(wearer.number, like)) : undefined
			)
		)
		.orderBy(asc(wearer.name), asc(wearer.number))
		.limit(SHOWN);
	const ids = rows.map(({ id }) => id);
	const [tests, changes] = await Promise.all([testsOf(db, ids), changesOf(db, ids)]);
	const testsBy = groupBy(tests, ({ test }) => test.wearerId);
	return rows.map((row) => {
		const own = testsBy.get(row.id) ?? [];
		const counting = own.filter(
			({ test, model }) =>
				standingOfTest(own, { test, model }, changes.get(row.id) ?? [], asOf).outcome === 'counts'
		);
		return {
			...row,
			/** Models and sizes that they may wear by a fit test, the one that counts longest first. */
			fits: counting.map(({ test, model }) => ({
				model,
				size: test.size,
				until: fitUntil(test.testedOn)
			})),
			tested: own.length
		};
	});
}

/** How a test stands among all of its wearer: one that was failed later with the same mask takes its place. */
const standingOfTest = (
	own: readonly { test: typeof fitTest.$inferSelect; model: string }[],
	{ test, model }: { test: typeof fitTest.$inferSelect; model: string },
	changes: readonly ReportedChange[],
	asOf: string
) =>
	judgeFitTest(
		asJudged(test, model),
		changes,
		asOf,
		own
			.filter(
				(other) =>
					other.test.modelId === test.modelId &&
					other.test.size === test.size &&
					(other.test.testedOn > test.testedOn ||
						(other.test.testedOn === test.testedOn && other.test.signedAt > test.signedAt))
			)
			.map((other) => asJudged(other.test, other.model))
	);

const asJudged = (test: typeof fitTest.$inferSelect, model: string) => ({
	model,
	size: test.size,
	on: test.testedOn,
	method: test.method,
	passed: test.passed,
	...(test.testedAt ? { at: test.testedAt.toISOString() } : {})
});

/** Fit tests of some wearers, the newest first. */
async function testsOf(db: Connection, wearerIds: readonly string[]) {
	if (wearerIds.length === 0) return [];
	return db
		.select({ test: fitTest, model: itemModel.name })
		.from(fitTest)
		.innerJoin(itemModel, eq(itemModel.id, fitTest.modelId))
		.where(inArray(fitTest.wearerId, [...wearerIds]))
		.orderBy(desc(fitTest.testedOn), desc(fitTest.signedAt));
}

async function changesOf(db: Connection, wearerIds: readonly string[]) {
	const changes = new Map<string, ReportedChange[]>();
	if (wearerIds.length === 0) return changes;
	const rows = await db
		.select()
		.from(wearerChange)
		.where(inArray(wearerChange.wearerId, [...wearerIds]))
		.orderBy(asc(wearerChange.reportedAt));
	for (const row of rows)
		changes.set(row.wearerId, [
			...(changes.get(row.wearerId) ?? []),
			{ what: row.what, on: row.reportedOn, at: row.reportedAt.toISOString() }
		]);
	return changes;
}

/** What the gate asks of some wearers, by wearer; the oldest fit test first. */
export async function fittedFacts(db: Connection, wearerIds: readonly string[]) {
	const [tests, changes] = await Promise.all([testsOf(db, wearerIds), changesOf(db, wearerIds)]);
	const testsBy = groupBy(tests, ({ test }) => test.wearerId);
	return new Map(
		wearerIds.map((id) => [
			id,
			{
				fitTests: (testsBy.get(id) ?? [])
					.toReversed()
					.map(({ test, model }) => asJudged(test, model)),
				changes: changes.get(id) ?? []
			}
		])
	);
}

/** What is kept of a wearer is seen by whoever works on the equipment, and by themselves. @throws Refusal */
export function requireSees(
	{ actor }: Pick<Context, 'actor'>,
	who: { userId: string | null }
): void {
	if (who.userId !== actor.id) requirePermission(actor.role, 'see wearers');
}

/** Everything that the page of a wearer shows. @throws Refusal where there is none */
export async function wearerPage(context: Context, id: string) {
	const { db } = context;
	const [row] = await db
		.select({ wearer, account: user.name })
		.from(wearer)
		.leftJoin(user, eq(user.id, wearer.userId))
		.where(eq(wearer.id, id));
	if (!row) throw new Refusal('not found', 'There is no such wearer.');
	requireSees(context, row.wearer);
	const asOf = todayOf(context);
	const [tests, changes, own, places] = await Promise.all([
		testsOf(db, [id]),
		changesOf(db, [id]),
		ownThings(db, row.wearer),
		db
			.select({ id: place.id, name: place.name })
			.from(wearerPlace)
			.innerJoin(place, eq(place.id, wearerPlace.placeId))
			.where(eq(wearerPlace.wearerId, id))
			.orderBy(asc(place.name))
	]);
	const reported = changes.get(id) ?? [];
	return {
		...row,
		asOf,
		places,
		own,
		changes: reported.toReversed(),
		tests: tests.map(({ test, model }) => ({
			...test,
			model,
			until: fitUntil(test.testedOn),
			verdict: standingOfTest(tests, { test, model }, reported, asOf)
		})),
		/** Whoever they are themselves may report a change of their own. */
		mayReport: row.wearer.userId === context.actor.id || may(context.actor.role, 'inspect')
	};
}

/** What may be chosen for a wearer: places in use, and accounts that are open. */
export async function choicesForWearer(db: Connection) {
	const [allPlaces, accounts] = await Promise.all([
		db
			.select({ id: place.id, name: place.name })
			.from(place)
			.where(isNull(place.closedOn))
			.orderBy(asc(place.name)),
		openAccounts(db)
	]);
	return { allPlaces, accounts };
}

/** Accounts that are open, by name. */
export const openAccounts = (db: Connection) =>
	db
		.select({ id: user.id, name: user.name })
		.from(user)
		.where(isNull(user.disabledAt))
		.orderBy(asc(user.name));

/** The wearer whom an account belongs to; null where it is linked to none. */
export async function wearerOf(db: Connection, userId: string): Promise<string | null> {
	const [row] = await db.select({ id: wearer.id }).from(wearer).where(eq(wearer.userId, userId));
	return row?.id ?? null;
}

/** Takes a wearer into the register, or changes what is kept of one. */
export async function saveWearer(context: Context, input: WearerInput): Promise<void> {
	const { requestId, ...content } = input;
	try {
		await write(context, 'keep wearers', { id: requestId, content }, async (at) => {
			const { id, version, placeIds, ...values } = content;
			const [held] = await at.tx.select().from(wearer).where(eq(wearer.id, id)).for('update');
			if ((held?.version ?? 0) !== version) throw stale('wearer');
			if (held?.erasedOn) throw new Refusal('conflict', 'Who this is was erased on request.');
			if (held)
				await at.tx
					.update(wearer)
					.set({ ...values, version: held.version + 1 })
					.where(eq(wearer.id, id));
			else await at.tx.insert(wearer).values({ id, ...values });
			await keepPlaces(at, id, placeIds);
			at.record(held ? 'wearer.changed' : 'wearer.added', {
				of: id,
				payload: { number: values.number }
			});
		});
	} catch (error) {
		const broken = brokenConstraint(error);
		if (broken === 'wearer_number')
			throw new Refusal('conflict', `Number ${input.number} is somebody else’s.`, 'number');
		if (broken === 'wearer_user')
			throw new Refusal('conflict', 'This account is another wearer’s.', 'userId');
		throw error;
	}
}

async function keepPlaces({ tx }: Work, wearerId: string, placeIds: readonly string[]) {
	const held = await tx.select().from(wearerPlace).where(eq(wearerPlace.wearerId, wearerId));
	const gone = held.filter(({ placeId }) => !placeIds.includes(placeId));
	if (gone.length)
		await tx.delete(wearerPlace).where(
			and(
				eq(wearerPlace.wearerId, wearerId),
				inArray(
					wearerPlace.placeId,
					gone.map(({ placeId }) => placeId)
				)
			)
		);
	const fresh = placeIds.filter((id) => !held.some(({ placeId }) => placeId === id));
	if (fresh.length)
		await tx.insert(wearerPlace).values(fresh.map((placeId) => ({ wearerId, placeId })));
}

/**
 * Reports a change of a face: every fit test before it ends that day. By the wearer on their own phone, or by whoever
 * works on the equipment.
 */
export function reportChange(
	context: Context,
	input: { id: string; wearerId: string; what: FaceChange }
): Promise<void> {
	const { id, ...content } = input;
	return write(context, 'note what happened', { id, content }, async (at) => {
		const [held] = await at.tx
			.select()
			.from(wearer)
			.where(eq(wearer.id, input.wearerId))
			.for('update');
		if (!held) throw new Refusal('not found', 'There is no such wearer.');
		if (held.userId !== at.actor.id && !may(at.actor.role, 'inspect'))
			throw new Refusal('forbidden', 'A change is reported by the wearer, or by a technician.');
		await at.tx.insert(wearerChange).values({
			id,
			wearerId: held.id,
			what: input.what,
			reportedOn: at.today,
			reportedAt: at.now,
			reportedBy: at.actor.id
		});
		at.record('wearer.change-reported', {
			of: held.id,
			payload: { number: held.number, what: input.what }
		});
	});
}
