import { randomUUID } from 'node:crypto';
import { and, desc, eq, inArray, isNull } from 'drizzle-orm';
import { sheetCode, readSheet } from '../../../core/inspection/paper.ts';
import { judgeReading } from '../../../core/inspection/reading.ts';
import { checkAnswer, type RunOutcome } from '../../../core/inspection/run.ts';
import { checkDay, daysBetween, readable } from '../../../core/plan/calendar.ts';
import { dayAt, middleOf } from '../../../core/plan/moments.ts';
import { inspectionRun, user } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';
import { requireAuthorisedOn } from '../people/authorisations.ts';
import { itemByTag, refuseRetired } from '../register/items.ts';
import { labelsOf } from '../register/register.ts';
import { codeSvg } from '../web/codes.ts';
import { answersOf, putAnswer } from './answers.ts';
import { lockRun } from './locked-run.ts';
import { procedureAt, proceduresFor } from './procedures.ts';
import { closeRun } from './runs.ts';

/** A sheet is typed in within so many days; what is older is looked at anew. Site. */
const OLDEST_DAYS = 31;

export interface PaperInput {
	/** Made by the client. */
	id: string;
	tag: string;
	procedure: string;
	version: number;
	/** The day on which it was done at the item. */
	day: string;
	/** Account of who did it. */
	doneBy: string;
	/** Account of the second person, where a step asks for one. */
	second?: string | null;
	/** What stands on the sheet, by the key of its step. */
	typed: Record<string, string>;
}

/** Sheets to be filled in by hand: a list once for each item of its kind. */
export async function sheets(context: Context, key: string | null, tags: string[]) {
	const { db } = context;
	const found = await labelsOf(db, tags);
	const family = found[0]?.family;
	const offered = family ? await proceduresFor(db, family) : [];
	const procedure = offered.find((one) => one.key === key) ?? offered[0] ?? null;
	return {
		procedure,
		offered: offered.map(({ key: of, name }) => ({ key: of, name })),
		tags,
		missing: tags.filter((tag) => !found.some((label) => label.tag === tag)),
		others: found.filter((label) => label.family !== family).map(({ tag }) => tag),
		sheets: procedure
			? found
					.filter((label) => label.family === family)
					.map((label) => ({
						...label,
						qr: codeSvg(
							'qrcode',
							sheetCode({ procedure: procedure.key, version: procedure.version, tag: label.tag })
						)
					}))
			: []
	};
}

/** What the page shows on which a sheet is typed in. */
export async function paperPage(
	context: Context,
	tag: string,
	key: string | null,
	version: number | null
) {
	const { db } = context;
	const { item } = await itemByTag(db, tag);
	refuseRetired(item);
	const offered = await proceduresFor(db, item.family);
	const procedure =
		key && version
			? await procedureAt(db, key, version)
			: (offered.find((p) => p.key === key) ?? offered[0]);
	if (!procedure || procedure.family !== item.family)
		throw new Refusal('not found', `There is no such list for ${item.tag}.`);
	const people = await db
		.select({ id: user.id, name: user.name, role: user.role })
		.from(user)
		.where(and(isNull(user.disabledAt), inArray(user.role, ['technician', 'supervisor', 'admin'])))
		.orderBy(user.name);
	return { tag: item.tag, procedure, people };
}

/**
 * Keeps an inspection that was filled in on paper: whole, signed by whom typed it in, marked as from paper with the day
 * and the person of the sheet. Dues count from that day.
 * @throws Refusal where the sheet is not whole, the day cannot be, or a newer inspection stands
 */
export function keepPaper(context: Context, input: PaperInput): Promise<{ outcome: RunOutcome }> {
	const { id, ...content } = input;
	return write(context, 'inspect', { id, content }, async (at) => {
		const { tx } = at;
		const { item } = await itemByTag(tx, input.tag);
		refuseRetired(item);
		const procedure = await procedureAt(tx, input.procedure, input.version);
		if (procedure.family !== item.family)
			throw new Refusal('invalid', `This sheet is for another kind than ${item.tag}.`, 'procedure');
		const answers = readSheet(procedure, input.typed);
		const { doneAt, by } = await whoAndWhen(
			at,
			item.id,
			input,
			procedure.steps.some((s) => s.secondPerson)
		);
		const opened = await tx
			.insert(inspectionRun)
			.values({
				id,
				itemId: item.id,
				procedure: procedure.key,
				procedureVersion: procedure.version,
				purpose: procedure.purpose ?? 'inspection',
				doneAt,
				doneBy: input.doneBy,
				assistantId: input.second ?? null,
				startedBy: at.actor.id,
				startedAt: at.now
			})
			.onConflictDoNothing()
			.returning({ id: inspectionRun.id });
		if (opened.length === 0)
			throw new Refusal('conflict', `${item.tag} has another list open. Finish and sign it first.`);
		await requireAuthorisedOn(at, 'inspect', item.id);
		const locked = await lockRun(tx, id);
		for (const [i, given] of answers.entries()) {
			const step = checkAnswer(procedure, given);
			const judged =
				step.reading && given.readings ? judgeReading(step, given.readings, locked.limits) : given;
			await putAnswer(
				at,
				{ id, itemId: item.id },
				step,
				{ ...given, id: randomUUID(), value: judged.value, code: judged.code ?? null },
				{
					position: i + 1,
					by: step.secondPerson ? (input.second ?? input.doneBy) : input.doneBy,
					answeredAt: doneAt
				}
			);
		}
		const outcome = await closeRun(at, locked, procedure, await answersOf(tx, id), Infinity, {
			day: input.day,
			by
		});
		return { outcome };
	});
}

/** The day and the people of a sheet, where they can be. */
async function whoAndWhen(at: Work, itemId: string, input: PaperInput, needsSecond: boolean) {
	const day = checkDay(input.day, 'day');
	if (day > at.today) throw new Refusal('invalid', 'That day has not come yet.', 'day');
	if (daysBetween(day, at.today) > OLDEST_DAYS)
		throw new Refusal(
			'invalid',
			`The sheet is of ${readable(day)}: more than ${OLDEST_DAYS} days old. Look at the item anew.`,
			'day'
		);
	const [last] = await at.tx
		.select({ signedAt: inspectionRun.signedAt, doneAt: inspectionRun.doneAt })
		.from(inspectionRun)
		.where(and(eq(inspectionRun.itemId, itemId), eq(inspectionRun.purpose, 'inspection')))
		.orderBy(desc(inspectionRun.signedAt))
		.limit(1);
	const stands = last && (last.doneAt ?? last.signedAt);
	if (stands && dayAt(stands, at.site.timeZone) > day)
		throw new Refusal(
			'conflict',
			`A newer inspection of ${readable(dayAt(stands, at.site.timeZone))} stands: the sheet of ${readable(day)} comes too late. Keep the paper.`,
			'day'
		);
	const people = await at.tx
		.select({ id: user.id, name: user.name })
		.from(user)
		.where(inArray(user.id, [input.doneBy, input.second ?? input.doneBy]));
	const done = people.find((one) => one.id === input.doneBy);
	if (!done) throw new Refusal('invalid', 'Choose who did it.', 'doneBy');
	if (needsSecond && (!input.second || input.second === input.doneBy))
		throw new Refusal(
			'invalid',
			'A step of this list is for a second person: choose who it was.',
			'second'
		);
	if (input.second && !people.some((one) => one.id === input.second))
		throw new Refusal('invalid', 'Choose who the second person was.', 'second');
	const middle = middleOf(day, at.site.timeZone);
	return { doneAt: new Date(Math.min(middle.getTime(), at.now.getTime())), by: done.name };
}
