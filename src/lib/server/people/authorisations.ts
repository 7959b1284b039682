import { and, asc, desc, eq, gte, inArray, isNull, or } from 'drizzle-orm';
import { airwayOf } from '../../../core/data/families.ts';
import {
	type Authorisation,
	type Job,
	type JobAsked,
	judgeCompetence
} from '../../../core/people/competence.ts';
import { type Day, plusDays, readable } from '../../../core/plan/calendar.ts';
import type { Connection } from '../db/client.ts';
import { authorisation, item, itemModel, user } from '../db/schema/index.ts';
import type { Context, Reader } from '../kernel/context.ts';
import { todayOf } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';

/** Days before its end at which an authorisation counts as lapsing. Site default. */
export const LAPSES_WITHIN_DAYS = 30;

type Row = typeof authorisation.$inferSelect;

/** An authorisation as it is judged: one that was taken back ended the day before. */
const asHeld = (row: Row): Authorisation => {
	const ended = row.endedOn ? plusDays(row.endedOn, -1) : null;
	const until = ended && (!row.until || ended < row.until) ? ended : row.until;
	return { job: row.job, families: row.families, modelIds: row.modelIds, from: row.fromDay, until };
};

/**
 * Refuses a job to somebody who is not authorised for it, naming who is. A job that nobody was ever authorised for here
 * goes by the role alone.
 * @throws Refusal
 */
export async function requireAuthorised(
	{ tx, actor, today }: Pick<Work, 'tx' | 'actor' | 'today'>,
	asked: JobAsked
): Promise<void> {
	const rows = await tx
		.select({ row: authorisation, name: user.name, disabledAt: user.disabledAt })
		.from(authorisation)
		.innerJoin(user, eq(user.id, authorisation.userId))
		.where(eq(authorisation.job, asked.job))
		.orderBy(asc(user.name));
	if (rows.length === 0) return;
	const judged = (userId: string) =>
		judgeCompetence(
			rows.filter(({ row }) => row.userId === userId).map(({ row }) => asHeld(row)),
			asked,
			today
		);
	const own = judged(actor.id);
	if (own.outcome === 'may') return;
	const others = new Map(
		rows
			.filter(({ row, disabledAt }) => !disabledAt && judged(row.userId).outcome === 'may')
			.map(({ row, name }) => [row.userId, name] as const)
	);
	const who = [...others.values()];
	throw new Refusal(
		'forbidden',
		`${own.reasons[0]?.text ?? ''} ${
			who.length
				? `Who could do it now: ${who.slice(0, 5).join(', ')}${who.length > 5 ? ` and ${who.length - 5} more` : ''}.`
				: 'Nobody here could do it now: a supervisor gives authorisations under People, Competence.'
		}`
	);
}

/** Refuses a job on an item to somebody who is not authorised for it. @throws Refusal */
export async function requireAuthorisedOn(
	at: Pick<Work, 'tx' | 'actor' | 'today'>,
	job: Job,
	itemId: string
): Promise<void> {
	const [found] = await at.tx
		.select({ family: item.family, modelId: item.modelId })
		.from(item)
		.where(eq(item.id, itemId));
	await requireAuthorised(at, {
		job,
		family: found?.family ?? null,
		modelId: found?.modelId ?? null
	});
}

export interface GiveAuthorisation {
	id: string;
	userId: string;
	job: Job;
	families: string[];
	modelIds: string[];
	from: Day;
	until: Day | null;
	evidence: string;
}

/** Authorises somebody for a job. @throws Refusal where the days, the person or what it is for cannot be */
export function giveAuthorisation(context: Context, input: GiveAuthorisation): Promise<void> {
	const { id, ...content } = input;
	return write(context, 'keep competence', { id, content }, async (at) => {
		const [person] = await at.tx.select().from(user).where(eq(user.id, input.userId));
		if (!person || person.disabledAt)
			throw new Refusal('invalid', 'Choose whose account it is for.', 'userId');
		if (input.until && input.until < input.from)
			throw new Refusal('invalid', 'It ends before it begins.', 'until');
		if (input.until && input.until < at.today)
			throw new Refusal('invalid', 'That day has passed.', 'until');
		for (const family of input.families) airwayOf(family);
		const models = input.modelIds.length
			? await at.tx.select().from(itemModel).where(inArray(itemModel.id, input.modelIds))
			: [];
		if (models.length !== input.modelIds.length)
			throw new Refusal('invalid', 'One of these models is not in the register.', 'modelIds');
		await at.tx.insert(authorisation).values({
			id,
			userId: input.userId,
			job: input.job,
			families: input.families,
			modelIds: input.modelIds,
			fromDay: input.from,
			until: input.until,
			evidence: input.evidence.trim(),
			givenBy: at.actor.id,
			givenAt: at.now
		});
		at.record('authorisation.given', {
			of: id,
			payload: {
				person: person.name,
				job: input.job,
				scope: scopeWords(
					input.families,
					models.map(({ name }) => name)
				),
				from: input.from,
				until: input.until,
				evidence: input.evidence.trim()
			}
		});
	});
}

/** Takes an authorisation back from today on. */
export function endAuthorisation(
	context: Context,
	input: { requestId: string; id: string; why: string }
): Promise<void> {
	const { requestId, ...content } = input;
	return write(context, 'keep competence', { id: requestId, content }, async (at) => {
		const [held] = await at.tx
			.select({ row: authorisation, name: user.name })
			.from(authorisation)
			.innerJoin(user, eq(user.id, authorisation.userId))
			.where(eq(authorisation.id, input.id))
			.for('update', { of: authorisation });
		if (!held) throw new Refusal('not found', 'There is no such authorisation.');
		if (held.row.endedOn) throw new Refusal('conflict', 'It was taken back already.');
		if (!input.why.trim()) throw new Refusal('invalid', 'Say why it is taken back.', 'why');
		await at.tx
			.update(authorisation)
			.set({ endedOn: at.today, endedBy: at.actor.id, endedWhy: input.why.trim() })
			.where(eq(authorisation.id, input.id));
		at.record('authorisation.taken-back', {
			of: input.id,
			payload: { person: held.name, job: held.row.job, why: input.why.trim() }
		});
	});
}

/** What an authorisation is for, in words. */
const scopeWords = (families: readonly string[], models: readonly string[]): string =>
	[
		...(models.length ? models : families.map((family) => airwayOf(family).plural.toLowerCase()))
	].join(', ') || 'everything';

/** Every authorisation that is not over for good, by job, then person, each as it stands today. */
export async function listAuthorisations(context: Reader) {
	const asOf = todayOf(context);
	const { db } = context;
	const [rows, models] = await Promise.all([
		db
			.select({ row: authorisation, name: user.name, disabledAt: user.disabledAt })
			.from(authorisation)
			.innerJoin(user, eq(user.id, authorisation.userId))
			.orderBy(asc(authorisation.job), asc(user.name), desc(authorisation.fromDay)),
		db.select({ id: itemModel.id, name: itemModel.name }).from(itemModel)
	]);
	const nameOf = new Map(models.map(({ id, name }) => [id, name]));
	return rows.map(({ row, name, disabledAt }) => {
		const { until } = asHeld(row);
		const over = until !== null && until < asOf;
		return {
			...row,
			person: name,
			scope: scopeWords(
				row.families,
				row.modelIds.map((id) => nameOf.get(id) ?? '?')
			),
			lastDay: until,
			standing: disabledAt
				? ('account closed' as const)
				: row.endedOn
					? ('taken back' as const)
					: over
						? ('lapsed' as const)
						: row.fromDay > asOf
							? ('to come' as const)
							: until !== null && until <= plusDays(asOf, LAPSES_WITHIN_DAYS)
								? ('lapses soon' as const)
								: ('in force' as const)
		};
	});
}

/** Authorisations whose last day lies between two days and that no longer one takes the place of, as sentences with their days. */
export async function authorisationsLapsing(
	db: Connection,
	from: Day,
	to: Day
): Promise<{ id: string; person: string; job: Job; on: Day }[]> {
	const rows = await db
		.select({ row: authorisation, name: user.name })
		.from(authorisation)
		.innerJoin(user, eq(user.id, authorisation.userId))
		.where(
			and(
				isNull(authorisation.endedOn),
				isNull(user.disabledAt),
				or(isNull(authorisation.until), gte(authorisation.until, from))
			)
		)
		.orderBy(asc(authorisation.until));
	return rows.flatMap(({ row, name }) => {
		const on = row.until;
		if (on === null || on > to) return [];
		const longer = rows.some(
			({ row: other }) =>
				other.userId === row.userId &&
				other.job === row.job &&
				(other.until === null || other.until > on)
		);
		return longer ? [] : [{ id: row.id, person: name, job: row.job, on }];
	});
}

/** How a lapsing authorisation is said. */
export const lapseWords = ({ job, on }: { job: Job; on: Day }, asOf: Day) =>
	`Authorisation: ${job}, ${on < asOf ? 'lapsed on' : 'last day'} ${readable(on)}`;

/** Everything that anybody who may come in is or was authorised for, with whose it is. */
export async function heldAuthorisations(
	db: Connection
): Promise<(Authorisation & { userId: string })[]> {
	const rows = await db
		.select({ row: authorisation })
		.from(authorisation)
		.innerJoin(user, eq(user.id, authorisation.userId))
		.where(isNull(user.disabledAt));
	return rows.map(({ row }) => ({ ...asHeld(row), userId: row.userId }));
}
