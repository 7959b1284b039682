import { mostLossPa } from '../../../core/bench/pressure-test.ts';
import { stationOf } from '../../../core/data/families.ts';
import { rejectCode } from '../../../core/data/reject-codes.ts';
import { svgOf } from '../../../core/drawings/svg.ts';
import { pressureMarks } from '../../../core/drawings/trace.ts';
import { readingText } from '../../../core/inspection/reading.ts';
import { runState } from '../../../core/inspection/run.ts';
import { readable } from '../../../core/plan/calendar.ts';
import { readableDay, readableMoment } from '../../../core/plan/moments.ts';
import { testPage } from '../bench/tests.ts';
import { findRepair, jobWithParts } from '../faults/jobs.ts';
import { runPage } from '../inspection/runs.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { history } from '../records/history.ts';
import { itemById } from './tag.ts';
import { itemPage } from '../register/item-page.ts';
import type { Paper } from './paper.ts';

const STANDS =
	'Says how it was when it was done; what came after is in the record. Local law, the maker’s instructions and a competent person come first.';

/** A signed inspection with every answer. */
export async function inspectionPaper(context: Context, id: string): Promise<Paper> {
	const run = await runPage(context, id);
	const zone = context.site.timeZone;
	if (!run.run.signedAt)
		throw new Refusal('not found', 'It is not signed: there is no paper of it.');
	const { answers } = runState(run.procedure, run.answers);
	return {
		title: 'Inspection',
		about: run.item.tag,
		outcome: { pass: 'Passed', 'pass, watch': 'Passed, with something to watch', fail: 'Failed' }[
			run.run.outcome ?? 'fail'
		],
		reasons: (run.run.reasons ?? []).map(({ text }) => text),
		facts: [
			['Item', `${run.item.tag}, ${run.model}, size ${run.item.size}`],
			['Serial', run.item.serial || 'none'],
			['List', `${run.procedure.name}, version ${run.procedure.version}`],
			...(run.run.doneAt
				? ([
						['Done', `${readableDay(run.run.doneAt, zone)} by ${run.doneByName ?? ''}, on paper`]
					] as [string, string][])
				: []),
			...(run.assistant ? ([['Second person', run.assistant]] as [string, string][]) : []),
			['Signed', `${readableMoment(run.run.signedAt, zone)} by ${run.signedByName ?? ''}`],
			...(run.supersededBy
				? ([['No longer stands', run.supersededBy.reason ?? '']] as [string, string][])
				: [])
		],
		tables: [
			{
				head: ['', 'Step', 'Answer'],
				widths: [18, '*', 200],
				rows: run.procedure.steps.map((step, i) => {
					const answer = answers.get(step.key);
					const said = answer?.code
						? `${rejectCode(answer.code).name} (${answer.code})`
						: (answer?.value ?? 'not asked');
					return [
						String(i + 1),
						step.title,
						[said, answer?.readings && readingText(answer.readings), answer?.note]
							.filter(Boolean)
							.join('; ')
					];
				})
			}
		],
		caution: STANDS,
		entry: { subject: `run:${id}`, action: 'inspection.signed' }
	};
}

/** A pressure test with its trace. */
export async function benchPaper(context: Context, id: string): Promise<Paper> {
	const { test, tag, model, by, recipe, samples } = await testPage(context, id);
	const zone = context.site.timeZone;
	if (!test.endedAt)
		throw new Refusal('not found', 'The test still runs: there is no paper of it.');
	const limit = recipe.setPa - Math.sign(recipe.setPa) * mostLossPa(recipe, recipe.setPa);
	return {
		title: 'Bench test',
		about: tag,
		outcome: {
			pass: 'Passed',
			'pass, marginal': 'Passed, marginal',
			fail: 'Failed',
			repeat: 'Test again'
		}[test.outcome ?? 'repeat'],
		reasons: (test.reasons ?? []).map(({ text }) => text),
		facts: [
			['Item', `${tag}, ${model}`],
			[
				'Recipe',
				`${recipe.name}, version ${recipe.version}: ${recipe.setPa.toFixed(0)} Pa, ${recipe.holdSeconds} s`
			],
			['Source', recipe.origin.source],
			['Instrument', test.instrument],
			['Tested', `${readableMoment(test.startedAt, zone)} by ${by}`],
			...(test.leakPaPerMin === null
				? []
				: ([['Steady leak', `${test.leakPaPerMin.toFixed(1)} Pa/min`]] as [string, string][]))
		],
		...(samples.length > 1 ? { svg: svgOf(pressureMarks(samples, limit)) } : {}),
		tables: [],
		caution: STANDS,
		entry: { subject: `bench:${id}`, action: 'bench.judged' }
	};
}

/** A repair from its faults to its release. */
export async function repairPaper(context: Context, id: string): Promise<Paper> {
	const job = await jobWithParts(context.db, id);
	const zone = context.site.timeZone;
	if (!job.doneAt)
		throw new Refusal('not found', 'The repair is not done: there is no paper of it.');
	const { tag, family } = await itemById(context.db, job.itemId);
	const name = (key: string | null) => (key ? (job.names[key] ?? '') : '');
	return {
		title: job.releasedAt ? 'Release after repair' : 'Repair',
		about: tag,
		outcome: job.releasedAt ? 'Released' : 'Done, not released',
		reasons: [],
		facts: [
			['Item', tag],
			['Repair', findRepair(job.repair).name],
			['Done', `${readableMoment(job.doneAt, zone)} by ${name(job.doneBy)}`],
			...(job.run?.signedAt
				? ([
						[
							'Proven by',
							`inspection of ${readableMoment(job.run.signedAt, zone)}: ${job.run.outcome ?? ''}`
						]
					] as [string, string][])
				: []),
			...(job.releasedAt
				? ([['Released', `${readableMoment(job.releasedAt, zone)} by ${name(job.releasedBy)}`]] as [
						string,
						string
					][])
				: []),
			...(job.note ? ([['Note', job.note]] as [string, string][]) : [])
		],
		tables: [
			{
				head: ['Fault', 'Found'],
				widths: ['*', 120],
				rows: job.defects.map((one) => [
					`${stationOf(family, one.station).name}: ${rejectCode(one.code).name} (${one.code})`,
					readableDay(one.reportedAt, zone)
				])
			},
			...(job.parts.length
				? [
						{
							head: ['Part', 'Lot', 'Number'],
							widths: ['*', 140, 60] as ('*' | number)[],
							rows: job.parts.map((one) => [one.part, one.lot, String(one.quantity)])
						}
					]
				: [])
		],
		caution: STANDS,
		entry: { subject: `job:${id}`, action: job.releasedAt ? 'repair.released' : 'repair.done' }
	};
}

/** The whole of what the record has of an item. */
export async function itemPaper(context: Context, tag: string): Promise<Paper> {
	const page = await itemPage(context, tag);
	const zone = context.site.timeZone;
	const lines = await history(context, { itemId: page.item.id, limit: 2000 });
	return {
		title: 'History',
		about: page.item.tag,
		outcome: null,
		reasons: [],
		facts: [
			['Item', `${page.item.tag}, ${page.model.name}, size ${page.item.size}`],
			['Serial', page.item.serial || 'none'],
			['State', `${page.verdict.outcome} on ${readable(page.asOf)}`],
			['Entries', String(lines.length)]
		],
		tables: [
			{
				head: ['When', 'What', 'Who', 'Entry'],
				widths: [92, '*', 90, 70],
				rows: lines.map((line) => [
					readableMoment(line.at, zone),
					[line.says, ...line.reasons.slice(0, 2)].join('. '),
					line.actor,
					`${line.seq} ${line.hash.slice(0, 7)}`
				])
			}
		],
		caution: STANDS,
		entry: null
	};
}
