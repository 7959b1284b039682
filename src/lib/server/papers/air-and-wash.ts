import { eq } from 'drizzle-orm';
import { readable } from '../../../core/plan/calendar.ts';
import { readableMoment } from '../../../core/plan/moments.ts';
import { cylinderPage } from '../air/cylinder-lists.ts';
import { batchPage } from '../care/batch-lists.ts';
import { airSource, airTest, cylinderFill, fillBatch, item, user } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { itemByTag } from '../register/items.ts';
import type { Paper } from './paper.ts';

const figure = (value: number | undefined, unit: string) =>
	value === undefined ? 'not measured' : `${value} ${unit}`;

/** A test of a source of air. */
export async function airPaper(context: Context, id: string): Promise<Paper> {
	const [row] = await context.db
		.select({ test: airTest, source: airSource.name, by: user.name })
		.from(airTest)
		.innerJoin(airSource, eq(airSource.id, airTest.sourceId))
		.innerJoin(user, eq(user.id, airTest.enteredBy))
		.where(eq(airTest.id, id));
	if (!row) throw new Refusal('not found', 'There is no such test of air.');
	const { test, source, by } = row;
	const zone = context.site.timeZone;
	const { sample } = test;
	return {
		title: 'Air test',
		about: source,
		outcome: { pass: 'Passed', fail: 'Failed', incomplete: 'Not whole' }[test.outcome],
		reasons: [],
		facts: [
			['Source', source],
			[
				'Taken',
				`${readableMoment(test.takenAt, zone)} at the ${sample.sampledAt}, ${sample.pressureBar} bar`
			],
			['Laboratory', test.laboratory],
			['Entered', `${readableMoment(test.enteredAt, zone)} by ${by}`]
		],
		tables: [
			{
				head: ['Of the air', 'Found'],
				widths: ['*', 160],
				rows: [
					['Oxygen', figure(sample.oxygenPercent, '%')],
					['Carbon monoxide', figure(sample.coPpm, 'ppm')],
					['Carbon dioxide', figure(sample.co2Ppm, 'ppm')],
					['Oil', figure(sample.oilMgPerM3, 'mg/m³')],
					['Water', figure(sample.waterMgPerM3, 'mg/m³')],
					['Smell', sample.odour === undefined ? 'not noted' : sample.odour ? 'yes' : 'none']
				]
			},
			{
				head: ['By', 'It', 'Because'],
				widths: [80, 60, '*'],
				rows: [
					['EN 12021', test.en.outcome, test.en.reasons.map(({ text }) => text).join(' ')],
					[
						'CGA grade D',
						test.gradeD.outcome,
						test.gradeD.reasons.map(({ text }) => text).join(' ')
					]
				]
			}
		],
		caution:
			'Holds for the sample that was taken. A source is tested again at its time and after every work on it; local law and its maker come first.',
		entry: { subject: `air-source:${test.sourceId}`, action: 'air.tested', holds: id }
	};
}

/** What is stamped on a cylinder, its tests, and its last fill. */
export async function cylinderPaper(context: Context, tag: string): Promise<Paper> {
	const found = await itemByTag(context.db, tag);
	const page = await cylinderPage(context, found.item.id);
	if (!page) throw new Refusal('not found', 'Nothing is known of this cylinder yet.');
	const { row, tests, fill } = page;
	const zone = context.site.timeZone;
	return {
		title: 'Cylinder',
		about: found.item.tag,
		outcome: null,
		reasons: [...page.mayFill.reasons, ...page.mayFit.reasons].map(({ text }) => text),
		facts: [
			['Cylinder', `${found.item.tag}, ${found.model.name}`],
			['Serial', found.item.serial || 'none'],
			['Material', row.material],
			['Made', row.manufacturedOn ? readable(row.manufacturedOn) : 'not known'],
			...(row.lifeEndsOn
				? ([['Last day of its life', readable(row.lifeEndsOn)]] as [string, string][])
				: []),
			...(fill?.endedAt
				? ([
						[
							'Last fill',
							`${readableMoment(new Date(fill.endedAt), zone)}, ${fill.settledBar?.toFixed(0) ?? '?'} bar at 15 °C`
						]
					] as [string, string][])
				: [])
		],
		tables: [
			{
				head: ['Tested on', 'Outcome', 'Stamp'],
				widths: [100, 100, '*'],
				rows: tests.map((one) => [
					readable(one.testedOn),
					one.passed ? 'passed' : 'failed',
					one.stamp
				])
			}
		],
		caution:
			'What is stamped on the cylinder comes first. Local law, the maker’s instructions and a competent person decide.',
		entry: null
	};
}

/** A fill of a cylinder that ended. */
export async function fillPaper(context: Context, id: string): Promise<Paper> {
	const [row] = await context.db
		.select({
			fill: cylinderFill,
			tag: item.tag,
			batch: fillBatch,
			source: airSource.name,
			by: user.name,
			air: airTest
		})
		.from(cylinderFill)
		.innerJoin(item, eq(item.id, cylinderFill.itemId))
		.innerJoin(fillBatch, eq(fillBatch.id, cylinderFill.batchId))
		.innerJoin(airSource, eq(airSource.id, fillBatch.sourceId))
		.innerJoin(airTest, eq(airTest.id, fillBatch.airTestId))
		.innerJoin(user, eq(user.id, cylinderFill.startedBy))
		.where(eq(cylinderFill.id, id));
	if (!row) throw new Refusal('not found', 'There is no such fill.');
	const { fill, batch, air } = row;
	if (!fill.endedAt)
		throw new Refusal('not found', 'The fill still runs: there is no paper of it.');
	const zone = context.site.timeZone;
	const bar = (value: number | null) => (value === null ? 'not read' : `${value.toFixed(0)} bar`);
	return {
		title: 'Fill',
		about: row.tag,
		outcome: fill.outcome === 'full' ? 'Full' : 'Short of full',
		reasons: [],
		facts: [
			['Cylinder', row.tag],
			['Batch', `${batch.number}, from ${row.source}`],
			['Air tested', `${readableMoment(air.takenAt, zone)}, ${air.laboratory}: ${air.outcome}`],
			['Panel', fill.instrument],
			['Begun', `${readableMoment(fill.startedAt, zone)} by ${row.by}, at ${bar(fill.startBar)}`],
			[
				'Ended',
				`${readableMoment(fill.endedAt, zone)}, at ${bar(fill.endBar)}${fill.endC === null ? '' : ` and ${fill.endC.toFixed(0)} °C`}`
			],
			['Comes to, at 15 °C', bar(fill.settledBar)]
		],
		tables: [],
		caution:
			'Says what was filled. A cylinder is looked at and its pressure read before each use; its stamp and local law come first.',
		entry: { subject: `fill:${id}`, action: 'fill.ended' }
	};
}

/** A wash batch that ended. */
export async function batchPaper(context: Context, id: string): Promise<Paper> {
	const { batch, by, stockName, readings, items } = await batchPage(context, id);
	const zone = context.site.timeZone;
	if (!batch.endedAt)
		throw new Refusal('not found', 'The batch still runs: there is no paper of it.');
	const at = (moment: Date | null) => (moment ? readableMoment(moment, zone) : 'not done');
	return {
		title: 'Wash batch',
		about: `Batch ${batch.number}`,
		outcome:
			batch.outcome === 'pass'
				? 'Within every limit'
				: batch.outcome === 'fail'
					? 'Broke a limit'
					: 'Given up',
		reasons: (batch.reasons ?? []).map(({ text }) => text),
		facts: [
			['Begun', `${at(batch.startedAt)} by ${by}`],
			['Washed', at(batch.washedAt)],
			[
				'Disinfected',
				batch.agent
					? `${batch.agent}${stockName ? `, ${stockName}` : ''}, ${batch.stockMl ?? '?'} mL in ${batch.volumeL ?? '?'} L, ${batch.contactMin ?? '?'} min`
					: 'not'
			],
			['Rinsed', at(batch.rinsedAt)],
			[
				'Dry',
				`${at(batch.dryAt)}${batch.driedBy ? `, ${batch.driedBy}` : ''}${batch.cabinetC === null ? '' : `, ${batch.cabinetC} °C`}`
			],
			['Ended', at(batch.endedAt)],
			...(batch.decision ? ([['Decision', batch.decision]] as [string, string][]) : []),
			['Bath', readings.map((one) => `${one.celsius.toFixed(1)} °C`).join(', ') || 'not read']
		],
		tables: [
			{
				head: ['Item', 'Model'],
				widths: [100, '*'],
				rows: items.map((one) => [one.tag, `${one.model}, ${one.size}`])
			}
		],
		caution:
			'A batch says that they were washed. Each is looked over dry before it goes back to the shelf; the maker’s instructions come first.',
		entry: { subject: `batch:${id}`, action: 'batch.ended' }
	};
}
