import { and, desc, eq, isNull, lte } from 'drizzle-orm';
import { WARNING_BAR } from '../../../core/air/content.ts';
import { EXPECTED_L_PER_MIN, MARGIN_MIN } from '../../../core/air/entry.ts';
import type { SampledAt } from '../../../core/air/breathing-air.ts';
import type { CylinderMaterial } from '../../../core/air/cylinder.ts';
import { READY_SHARE } from '../../../core/bench/breathing-apparatus.ts';
import { recordOf } from '../../../core/data/family-records.ts';
import { FIT_PROTOCOLS } from '../../../core/fit/protocols.ts';
import type { FitMethod } from '../../../core/people/fit-standing.ts';
import type { EventWhat } from '../../../core/plan/events.ts';
import { momentOf } from '../../../core/plan/moments.ts';
import type { Every, RuleWhat } from '../../../core/plan/rules.ts';
import type { PAST_TABLES, PastKind } from '../../../core/records/past-tables.ts';
import type { UsePattern } from '../../../core/site/places.ts';
import { putCylinder, putCylinderTest } from '../air/cylinders.ts';
import { putAirTest } from '../air/sources.ts';
import {
	airSource,
	airTest,
	cylinder,
	cylinderFill,
	entryTeam,
	entryWearer,
	fillBatch,
	itemModel,
	place,
	wearer
} from '../db/schema/index.ts';
import { putFault } from '../faults/reports.ts';
import { Refusal } from '../kernel/refusal.ts';
import type { Work } from '../kernel/write.ts';
import { putFitTest } from '../people/fit-tests.ts';
import { itemByTag } from '../register/items.ts';
import { putRule } from '../site/rules.ts';

/** A row of a kind of table. */
export type RowOf<K extends PastKind> = ReturnType<(typeof PAST_TABLES)[K]['empty']>;

const FROM_TABLE = 'from a table';
const newId = () => crypto.randomUUID();

/** The moment of a cell that must be there. @throws Refusal where it has not come yet */
function past(at: Work, text: string | null, path: string): Date {
	const moment = momentOf(text ?? '', at.site.timeZone);
	if (moment > at.now) throw new Refusal('invalid', 'This moment has not come yet.', path);
	return moment;
}

async function named<T>(found: Promise<T[]>, name: string, what: string, path: string): Promise<T> {
	const [one] = await found;
	if (one === undefined) throw new Refusal('invalid', `“${name}” is no ${what} here.`, path);
	return one;
}

const sourceNamed = ({ tx }: Work, name: string) =>
	named(
		tx.select().from(airSource).where(eq(airSource.name, name)),
		name,
		'source of air',
		'source'
	);
const modelNamed = ({ tx }: Work, name: string) =>
	named(tx.select().from(itemModel).where(eq(itemModel.name, name)), name, 'model', 'model');
const placeNamed = ({ tx }: Work, name: string) =>
	named(
		tx
			.select()
			.from(place)
			.where(and(eq(place.name, name), isNull(place.closedOn))),
		name,
		'place in use',
		'place'
	);

async function putCylinderRow(at: Work, row: RowOf<'cylinders'>): Promise<void> {
	const { testedOn, stamp, tag, ...data } = row;
	const { item } = await itemByTag(at.tx, tag);
	const [held] = await at.tx.select().from(cylinder).where(eq(cylinder.itemId, item.id));
	if (held)
		throw new Refusal('conflict', `What is stamped on ${item.tag} is on record already.`, 'tag');
	await putCylinder(at, {
		...data,
		tag,
		version: null,
		waterVolumeL: data.waterVolumeL ?? 0,
		ratedBar: data.ratedBar ?? 0,
		maximumBar: data.maximumBar ?? 0,
		material: data.material as CylinderMaterial,
		manufacturedOn: data.manufacturedOn ?? ''
	});
	if (testedOn) await putCylinderTest(at, { id: newId(), tag, testedOn, passed: true, stamp });
}

async function putAirTestRow(at: Work, row: RowOf<'air-tests'>): Promise<void> {
	const { source, takenAt, laboratory, sampledAt, pressureBar, ...found } = row;
	const { id } = await sourceNamed(at, source);
	const taken = past(at, takenAt, 'takenAt');
	const [held] = await at.tx
		.select({ id: airTest.id })
		.from(airTest)
		.where(and(eq(airTest.sourceId, id), eq(airTest.takenAt, taken)));
	if (held) throw new Refusal('conflict', 'This test is on record already.', 'takenAt');
	await putAirTest(at, {
		id: newId(),
		sourceId: id,
		takenAt: taken,
		laboratory,
		sample: {
			sampledAt: sampledAt as SampledAt,
			pressureBar: pressureBar ?? 0,
			...Object.fromEntries(Object.entries(found).filter(([, value]) => value !== null))
		}
	});
}

/** A fill stands in a batch: of its source, under the test of air that held then. */
async function putFillRow(at: Work, row: RowOf<'fills'>): Promise<void> {
	const { item } = await itemByTag(at.tx, row.tag);
	const [held] = await at.tx.select().from(cylinder).where(eq(cylinder.itemId, item.id));
	if (!held) throw new Refusal('invalid', `${item.tag} is no cylinder that is known here.`, 'tag');
	const source = await sourceNamed(at, row.source);
	const endedAt = past(at, row.endedAt, 'endedAt');
	const startedAt = row.startedAt ? past(at, row.startedAt, 'startedAt') : endedAt;
	const [startBar, endBar, settledBar] = [row.startBar ?? 0, row.endBar ?? 0, row.settledBar ?? 0];
	if (startedAt > endedAt) throw new Refusal('invalid', 'It ended before it began.', 'endedAt');
	if (endBar <= startBar)
		throw new Refusal('invalid', 'It ended with no more than it began with.', 'endBar');
	const [test] = await at.tx
		.select({ id: airTest.id, outcome: airTest.outcome })
		.from(airTest)
		.where(and(eq(airTest.sourceId, source.id), lte(airTest.takenAt, startedAt)))
		.orderBy(desc(airTest.takenAt))
		.limit(1);
	if (!test)
		throw new Refusal(
			'invalid',
			`No test of the air of ${source.name} from before is on record: take those in first.`,
			'endedAt'
		);
	const [twice] = await at.tx
		.select({ id: cylinderFill.id })
		.from(cylinderFill)
		.where(and(eq(cylinderFill.itemId, item.id), eq(cylinderFill.endedAt, endedAt)));
	if (twice) throw new Refusal('conflict', 'This fill is on record already.', 'endedAt');
	const [batch] = await at.tx
		.insert(fillBatch)
		.values({
			id: newId(),
			sourceId: source.id,
			airTestId: test.id,
			openedBy: at.actor.id,
			openedAt: startedAt,
			closedAt: endedAt
		})
		.returning({ id: fillBatch.id });
	await at.tx.insert(cylinderFill).values({
		id: newId(),
		batchId: batch?.id ?? '',
		itemId: item.id,
		instrument: FROM_TABLE,
		startedBy: at.actor.id,
		startedAt,
		startBar,
		endedAt,
		endBar,
		endC: row.endC,
		settledBar,
		outcome: settledBar >= held.ratedBar * READY_SHARE ? 'full' : 'short'
	});
	at.changed(item.id);
}

async function putEntryRow(at: Work, row: RowOf<'entries'>): Promise<void> {
	const set = row.set ? (await itemByTag(at.tx, row.set)).item : null;
	if (set && !recordOf(set.family).goesIn)
		throw new Refusal('invalid', `${set.tag} is no breathing apparatus.`, 'set');
	const here = row.place ? await placeNamed(at, row.place) : null;
	const [startedAt, endedAt] = [
		past(at, row.startedAt, 'startedAt'),
		past(at, row.endedAt, 'endedAt')
	];
	const [startBar, endBar] = [row.startBar ?? 0, row.endBar ?? 0];
	if (endedAt <= startedAt)
		throw new Refusal('invalid', 'They came out before they went in.', 'endedAt');
	if (endBar > startBar) throw new Refusal('invalid', 'More came out than went in.', 'endBar');
	const [twice] = await at.tx
		.select({ id: entryWearer.id })
		.from(entryWearer)
		.where(and(eq(entryWearer.wearer, row.wearer), eq(entryWearer.startedAt, startedAt)));
	if (twice) throw new Refusal('conflict', 'This entry is on record already.', 'startedAt');
	const teamId = newId();
	await at.tx.insert(entryTeam).values({
		id: teamId,
		task: row.task,
		placeId: here?.id ?? null,
		marginMin: MARGIN_MIN,
		openedBy: at.actor.id,
		openedAt: startedAt,
		closedAt: endedAt
	});
	await at.tx.insert(entryWearer).values({
		id: newId(),
		teamId,
		wearer: row.wearer,
		setId: set?.id ?? null,
		waterVolumeL: row.waterVolumeL ?? 0,
		startBar,
		endBar,
		warningBar: WARNING_BAR,
		expectedLPerMin: EXPECTED_L_PER_MIN,
		startedAt,
		endedAt
	});
	if (set) at.changed(set.id);
}

async function putFitTestRow(at: Work, row: RowOf<'fit-tests'>): Promise<void> {
	const { number, method, way, factors, passed, testedOn, ...rest } = row;
	const who = await named(
		at.tx.select().from(wearer).where(eq(wearer.number, number)),
		number,
		'wearer',
		'number'
	);
	const { id: modelId } = await modelNamed(at, row.model);
	const counted = method === 'quantitative';
	if (!counted && passed === null)
		throw new Refusal('invalid', 'Of a qualitative test: yes or no.', 'passed');
	await putFitTest(at, {
		id: newId(),
		wearerId: who.id,
		modelId,
		size: rest.size,
		method: method as FitMethod,
		protocol: counted ? way : null,
		factors: counted ? factorsOf(way, factors) : {},
		agent: counted ? null : way,
		noticedNothing: passed ?? false,
		worn: rest.worn,
		testedOn: testedOn ?? '',
		tester: rest.tester
	});
}

/** The factors of a row by exercise, in the order of those that count. */
function factorsOf(way: string, text: string): Record<string, number> {
	const protocol = FIT_PROTOCOLS.find(({ key }) => key === way);
	if (!protocol)
		throw new Refusal(
			'invalid',
			`One of: ${FIT_PROTOCOLS.map(({ key }) => key).join(', ')}.`,
			'way'
		);
	const counted = protocol.exercises.filter((one) => one.counted);
	const given = text.split(/[\s|]+/).filter(Boolean);
	const figures = given.map(Number);
	if (figures.length !== counted.length || figures.some((n) => !(n > 0)))
		throw new Refusal(
			'invalid',
			`${counted.length} figures apart by blanks: ${counted.map(({ name }) => name).join(', ')}.`,
			'factors'
		);
	return Object.fromEntries(counted.map(({ key }, i) => [key, figures[i] ?? 0]));
}

async function putFaultRow(at: Work, row: RowOf<'faults'>): Promise<void> {
	await putFault(at, { ...row, id: newId() });
}

async function putRuleRow(at: Work, row: RowOf<'rules'>): Promise<void> {
	const intervals = Object.entries({
		months: row.everyMonths,
		days: row.everyDays,
		uses: row.everyUses,
		hours: row.everyHours,
		cycles: row.everyCycles,
		after: row.after as EventWhat | null
	}).filter(([, value]) => value !== null);
	if (intervals.length !== 1)
		throw new Refusal(
			'invalid',
			'One interval, or one event after which it is done.',
			'every months'
		);
	await putRule(at, {
		id: newId(),
		version: 0,
		reason: row.reason,
		meant: false,
		rule: {
			what: row.what as RuleWhat,
			detail: row.detail,
			every: Object.fromEntries(intervals) as unknown as Every,
			window: row.window ?? 0,
			families: row.families.split(/[\s|]+/).filter(Boolean),
			modelId: row.model ? (await modelNamed(at, row.model)).id : null,
			usePattern: row.use as UsePattern | null,
			placeId: row.place ? (await placeNamed(at, row.place)).id : null,
			replaces: row.replaces || null
		}
	});
}

/** How a row of each kind is put down. */
export const PUT: { [K in PastKind]: (at: Work, row: RowOf<K>) => Promise<void> } = {
	cylinders: putCylinderRow,
	'air-tests': putAirTestRow,
	fills: putFillRow,
	entries: putEntryRow,
	'fit-tests': putFitTestRow,
	faults: putFaultRow,
	rules: putRuleRow
};
