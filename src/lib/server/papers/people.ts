import { and, asc, desc, eq } from 'drizzle-orm';
import { readable } from '../../../core/plan/calendar.ts';
import { readableMoment } from '../../../core/plan/moments.ts';
import {
	custody,
	fitTest,
	handOut,
	hazardPlan,
	item,
	itemModel,
	user,
	wearer
} from '../db/schema/index.ts';
import { planPage } from '../hazards/plans.ts';
import type { Context } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import { ownThings } from '../people/own-data.ts';
import { requireSees } from '../people/wearers.ts';
import type { Paper, PaperTable } from './paper.ts';

/** Hand-outs that one paper lists. Site. */
const MOST = 1000;
const GATE = {
	'hand out': 'Go',
	'with conditions': 'With conditions',
	'do not': 'Against the gate'
};
const gateWords = (outcome: string) => GATE[outcome as keyof typeof GATE] ?? outcome;

/** What went over the counter, each piece with when it came back. */
const handed = ({ db }: Context, of: { wearerId?: string; planId?: string; id?: string }) =>
	db
		.select({
			handOut,
			tag: item.tag,
			model: itemModel.name,
			itemId: item.id,
			back: custody.until,
			number: wearer.number,
			name: wearer.name,
			by: user.name,
			task: hazardPlan.task
		})
		.from(custody)
		.innerJoin(handOut, eq(handOut.id, custody.handOutId))
		.innerJoin(wearer, eq(wearer.id, handOut.wearerId))
		.innerJoin(user, eq(user.id, handOut.handedBy))
		.innerJoin(item, eq(item.id, custody.itemId))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.leftJoin(hazardPlan, eq(hazardPlan.id, handOut.planId))
		.where(
			and(
				of.wearerId ? eq(handOut.wearerId, of.wearerId) : undefined,
				of.planId ? eq(handOut.planId, of.planId) : undefined,
				of.id ? eq(handOut.id, of.id) : undefined
			)
		)
		.orderBy(desc(handOut.handedAt), asc(item.tag))
		.limit(MOST);
type Handed = Awaited<ReturnType<typeof handed>>[number];

const table = (head: string[], widths: PaperTable['widths'], rows: string[][]): PaperTable[] =>
	rows.length ? [{ head, widths, rows }] : [];

const backText = (back: Date | null, zone: string) =>
	back ? readableMoment(back, zone) : 'still out';

/** What a person wore: what was handed to them, what they went in with, in what they were fitted. */
export async function wearerPaper(context: Context, id: string): Promise<Paper> {
	const { db, site } = context;
	const [who] = await db.select().from(wearer).where(eq(wearer.id, id));
	if (!who) throw new Refusal('not found', 'There is no such wearer.');
	requireSees(context, who);
	const [out, own, tests] = await Promise.all([
		handed(context, { wearerId: id }),
		ownThings(db, who),
		db
			.select({ test: fitTest, model: itemModel.name })
			.from(fitTest)
			.innerJoin(itemModel, eq(itemModel.id, fitTest.modelId))
			.where(eq(fitTest.wearerId, id))
			.orderBy(desc(fitTest.testedOn))
	]);
	const zone = site.timeZone;
	return {
		title: 'What was worn',
		about: `Wearer ${who.number}`,
		outcome: null,
		reasons: [],
		facts: [
			['Wearer', who.erasedOn ? `number ${who.number}` : `${who.name}, number ${who.number}`],
			['Cleared until', who.clearedUntil ? readable(who.clearedUntil) : 'no day on record'],
			['Trained until', who.trainedUntil ? readable(who.trainedUntil) : 'no day on record'],
			...(own.items.length
				? ([['Their own', own.items.map(({ tag }) => tag).join(', ')]] as [string, string][])
				: [])
		],
		tables: [
			...table(
				['Handed out', 'Item', 'For', 'Back', 'Gate'],
				[86, '*', 120, 86, 66],
				out.map((one) => [
					readableMoment(one.handOut.handedAt, zone),
					`${one.tag}, ${one.model}`,
					one.task ?? 'their own',
					backText(one.back, zone),
					gateWords(one.handOut.outcome)
				])
			),
			...table(
				['Went in', 'Out', 'Task', 'Bar'],
				[100, 100, '*', 70],
				own.uses.map((use) => [
					readableMoment(use.startedAt, zone),
					readableMoment(use.endedAt, zone),
					use.task,
					`${use.startBar.toFixed(0)} to ${use.endBar.toFixed(0)}`
				])
			),
			...table(
				['Fit test', 'Mask', 'Outcome'],
				[80, '*', 120],
				tests.map(({ test, model }) => [
					readable(test.testedOn),
					`${model}, size ${test.size}`,
					test.passed ? 'passed' : 'not passed'
				])
			)
		],
		caution:
			'What the record has of it. It says nothing of health; local law says who may hold it and for how long.',
		entry: null
	};
}

/** A task: what its approved plan asks for, and what went out for it. */
export async function taskPaper(context: Context, id: string): Promise<Paper> {
	requirePermission(context.actor.role, 'see wearers');
	const [{ plan, place, editions, status }, out] = await Promise.all([
		planPage(context, id),
		handed(context, { planId: id })
	]);
	const zone = context.site.timeZone;
	return {
		title: 'Task',
		about: `Plan ${plan.number}`,
		outcome: null,
		reasons: status.reasons.map(({ text }) => text),
		facts: [
			['Task', plan.task],
			['Place', place],
			['State', status.outcome],
			['Contaminants', plan.facts.contaminants.map(({ name }) => name).join(', ') || 'none']
		],
		tables: [
			...table(
				['Edition', 'Approved', 'By', 'Holds until'],
				[60, 130, '*', 110],
				editions.map(({ edition, by }) => [
					String(edition.edition),
					readableMoment(edition.approvedAt, zone),
					by,
					readable(edition.expiresOn)
				])
			),
			...table(
				['Handed out', 'Wearer', 'Item', 'Back', 'Gate'],
				[86, 100, '*', 86, 66],
				out.map((one) => [
					readableMoment(one.handOut.handedAt, zone),
					`${one.name}, ${one.number}`,
					`${one.tag}, ${one.model}`,
					backText(one.back, zone),
					gateWords(one.handOut.outcome)
				])
			)
		],
		caution:
			'What protects is what the approved edition asks for, worn as it was fitted. Local law and a competent person come first.',
		entry: null
	};
}

/** What went over the counter at once, with what the gate said. */
export async function handOutPaper(context: Context, id: string): Promise<Paper> {
	requirePermission(context.actor.role, 'see wearers');
	const rows = await handed(context, { id });
	const [first] = rows;
	if (!first) throw new Refusal('not found', 'There is no such hand-out.');
	const zone = context.site.timeZone;
	const { handOut: given } = first;
	return {
		title: 'Hand-out',
		about: `Wearer ${first.number}, ${readableMoment(given.handedAt, zone)}`,
		outcome: gateWords(given.outcome),
		reasons: [
			...given.reasons.map(({ text }) => text),
			...(given.overrideReason ? [`Handed out all the same: ${given.overrideReason}`] : [])
		],
		facts: [
			['To', `${first.name}, number ${first.number}`],
			['For', first.task ?? 'their own, for no one task'],
			...(given.minutes
				? ([['Minutes planned', String(given.minutes)]] as [string, string][])
				: []),
			['Handed out', `${readableMoment(given.handedAt, zone)} by ${first.by}`],
			...(given.offline
				? ([['Asked', 'without a connection, by what the device knew']] as [string, string][])
				: [])
		],
		tables: table(
			['Item', 'Model', 'Back'],
			[80, '*', 110],
			rows.map((one) => [one.tag, one.model, backText(one.back, zone)])
		),
		caution:
			'Says what the record knew when it was handed out. The wearer checks the seal each time; local law and a competent person come first.',
		entry: entryOf(first)
	};
}

const entryOf = ({ itemId, number, handOut: { handedAt } }: Handed): Paper['entry'] => ({
	since: handedAt,
	subject: `item:${itemId}`,
	action: 'item.handed-out',
	holds: `"wearer":"${number}"`
});
