import { and, count, desc, eq, isNotNull, isNull } from 'drizzle-orm';
import { mayFill } from '../../core/air/cylinder.ts';
import { fillTarget, RATED_C, settledPressureBar, type FillTarget } from '../../core/air/settle.ts';
import { READY_SHARE } from '../../core/bench/breathing-apparatus.ts';
import { listSources, sourceWithState } from './air-sources.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection } from './db/client.ts';
import {
	airSource,
	cylinder,
	cylinderFill,
	fillBatch,
	item,
	user,
	type FillPoint
} from './db/schema/index.ts';
import { cylinderByTag, listCylinders, putPressure } from './cylinders.ts';
import { brokenConstraint, Fault } from './errors.ts';
import { openDefect } from './faults.ts';
import {
	fillPanelAt,
	type FillPanel,
	type PanelReading,
	type SimulatedPanel
} from './instruments/fill-panel.ts';
import { withInstrument } from './instruments/with-instrument.ts';
import { proceduresFor, stepRejected, whatCanBeWrong } from './procedures.ts';
import { rebuildState } from './readiness.ts';
import { dayAt, type Site } from './site.ts';

/** Address of the fill panel; without one fills are written down by hand. */
export type PanelAddress = string | undefined;
const BY_HAND = 'read by hand';
/** A cylinder whose temperature is not read counts as cool, °C: it is stopped early, never late. Site default. */
const HAND_C = 15;
/** Empties that the fill room lists. */
const QUEUE = 40;

const withPanel = <T>(address: string, work: (panel: FillPanel) => Promise<T>): Promise<T> =>
	withInstrument(
		fillPanelAt(address),
		'Close the valves by hand and read the gauge yourself.',
		work
	);

/** What the panel shows; why not, where it does not answer. */
export async function panelState(
	address: PanelAddress
): Promise<{ reading: PanelReading | null; says: string }> {
	if (!address) return { reading: null, says: 'No fill panel is connected.' };
	try {
		return await withPanel(address, async (panel) => ({
			says: await panel.identify(),
			reading: await panel.read()
		}));
	} catch (error) {
		if (!(error instanceof Fault)) throw error;
		return { reading: null, says: error.message };
	}
}

/** Everything that the fill room shows. */
export async function fillRoom(context: Context, site: Site, address: PanelAddress) {
	const { db } = context;
	const [sources, queue, panel] = [
		await listSources(context, site),
		await listCylinders(context, site, { location: 'filling' }, 1, QUEUE),
		await panelState(address)
	];
	const open = await openFill(db);
	const [look] = await proceduresFor(db, 'cylinder');
	return {
		sources: sources.filter(({ source }) => source.fills),
		queue,
		panel,
		open,
		batches: await batches(db),
		log: await fillLog(db),
		/** What the look at a cylinder covers, and what can be wrong. */
		steps: whatCanBeWrong(look)
	};
}

/** The fill that is under way, with its cylinder and what decides where it stops. */
export async function openFill(db: Connection) {
	const [row] = await db
		.select({ fill: cylinderFill, tag: item.tag, cylinder, source: airSource, by: user.name })
		.from(cylinderFill)
		.innerJoin(item, eq(item.id, cylinderFill.itemId))
		.innerJoin(cylinder, eq(cylinder.itemId, cylinderFill.itemId))
		.innerJoin(fillBatch, eq(fillBatch.id, cylinderFill.batchId))
		.innerJoin(airSource, eq(airSource.id, fillBatch.sourceId))
		.innerJoin(user, eq(user.id, cylinderFill.startedBy))
		.where(isNull(cylinderFill.endedAt));
	return row ?? null;
}

/** Batches, newest first, each with how many cylinders were filled in it. */
const batches = (db: Connection) =>
	db
		.select({
			batch: fillBatch,
			source: airSource.name,
			by: user.name,
			fills: count(cylinderFill.id)
		})
		.from(fillBatch)
		.innerJoin(airSource, eq(airSource.id, fillBatch.sourceId))
		.innerJoin(user, eq(user.id, fillBatch.openedBy))
		.leftJoin(cylinderFill, eq(cylinderFill.batchId, fillBatch.id))
		.groupBy(fillBatch.id, airSource.name, user.name)
		.orderBy(desc(fillBatch.number))
		.limit(6);

/** Fills, newest first. */
export async function fillLog(db: Connection, limit = 30) {
	const rows = await db
		.select({
			fill: cylinderFill,
			tag: item.tag,
			batch: fillBatch.number,
			source: airSource.name,
			by: user.name
		})
		.from(cylinderFill)
		.innerJoin(item, eq(item.id, cylinderFill.itemId))
		.innerJoin(fillBatch, eq(fillBatch.id, cylinderFill.batchId))
		.innerJoin(airSource, eq(airSource.id, fillBatch.sourceId))
		.innerJoin(user, eq(user.id, cylinderFill.startedBy))
		.where(isNotNull(cylinderFill.endedAt))
		.orderBy(desc(cylinderFill.endedAt))
		.limit(limit);
	return rows.map(({ fill: { trace: _, ...fill }, ...rest }) => ({ fill, ...rest }));
}

export interface StartFill {
	/** Made by the client. */
	id: string;
	tag: string;
	sourceId: string;
	/** The cylinder was looked at and found good. */
	looked: boolean;
}

/** Puts a cylinder on the panel, where it, its look and the air of the source allow it. */
export async function startFill(
	context: Context,
	site: Site,
	address: PanelAddress,
	input: StartFill
): Promise<void> {
	requireRole(context.actor, 'fill cylinders');
	const { db } = context;
	const [again] = await db.select().from(cylinderFill).where(eq(cylinderFill.id, input.id));
	if (again) return;
	if (!input.looked)
		throw new Fault('invalid', 'Look at the cylinder first, at each fill.', 'looked');
	const asOf = dayAt(context.now(), site.timeZone);
	const { item: found, row, facts } = await cylinderByTag(db, site, input.tag);
	if (found.retiredOn)
		throw new Fault('conflict', `${found.tag} was taken out of use on ${found.retiredOn}.`, 'tag');
	const verdict = mayFill(facts, asOf);
	if (verdict.outcome === 'refused')
		throw new Fault(
			'conflict',
			`${found.tag}: ${verdict.reasons.map((r) => r.text).join(' ')}`,
			'tag'
		);
	const known = facts.pressureBar ?? 0;
	const write = (instrument: string, startBar: number) =>
		inTransaction(context, async (tx) => {
			const batch = await batchFor(tx, context, site, input.sourceId, asOf);
			await tx.insert(cylinderFill).values({
				...{ id: input.id, batchId: batch.id, itemId: found.id, instrument, startBar },
				...{ startedBy: context.actor.id, startedAt: context.now() }
			});
			await tx.update(cylinder).set({ location: 'filling' }).where(eq(cylinder.itemId, found.id));
			await record(tx, context.actor.id, {
				action: 'fill.started',
				subject: `fill:${input.id}`,
				itemId: found.id,
				payload: { batch: batch.number, startBar, instrument, looked: true }
			});
		});
	try {
		if (!address) return await write(BY_HAND, known);
		await withPanel(address, async (panel) => {
			const busy = await openFill(db);
			if (busy)
				throw new Fault('conflict', `${busy.tag} is on the panel. End its fill first.`, 'tag');
			await panel.connect(found.tag, { waterVolumeL: row.waterVolumeL, bar: known });
			const { cylinderBar } = await panel.read();
			await write(await panel.identify(), cylinderBar ?? known);
		});
	} catch (error) {
		if (brokenConstraint(error)?.includes('one_open'))
			throw new Fault('conflict', 'Another cylinder is on the panel. End its fill first.', 'tag');
		throw error;
	}
}

/** The open batch of a source, or a new one under the air test that is in force; refused where none is. */
async function batchFor(
	tx: Connection,
	context: Context,
	site: Site,
	sourceId: string,
	asOf: string
) {
	const { source, state } = await sourceWithState(tx, site, sourceId, asOf);
	if (!source.fills) throw new Fault('invalid', `${source.name} fills no cylinders.`, 'sourceId');
	if (state.testId === null)
		throw new Fault(
			'conflict',
			`${source.name} gives no air out: ${state.reasons[0]?.text ?? ''}`,
			'sourceId'
		);
	const [open] = await tx
		.select()
		.from(fillBatch)
		.where(and(eq(fillBatch.sourceId, sourceId), isNull(fillBatch.closedAt)));
	if (open?.airTestId === state.testId) return open;
	if (open)
		await tx.update(fillBatch).set({ closedAt: context.now() }).where(eq(fillBatch.id, open.id));
	const [batch] = await tx
		.insert(fillBatch)
		.values({
			...{ id: crypto.randomUUID(), sourceId, airTestId: state.testId },
			...{ openedBy: context.actor.id, openedAt: context.now() }
		})
		.returning();
	if (!batch) throw new RangeError('The batch was not written.');
	return batch;
}

/** Where to stop now: at the temperature that the cylinder has. */
export const targetNow = (
	row: Pick<typeof cylinder.$inferSelect, 'ratedBar' | 'maximumBar'>,
	celsius: number
): FillTarget => fillTarget(row.ratedBar, row.maximumBar, celsius);

/** The fill that a deed is about. @throws Fault where it has ended */
async function running(db: Connection, id: string) {
	const open = await openFill(db);
	if (open?.fill.id !== id) throw new Fault('conflict', 'This fill has ended.');
	return open;
}

/** Opens a bank to the cylinder. The panel is told first where to close by itself. */
export async function openBank(
	context: Context,
	address: PanelAddress,
	input: { fillId: string; bank: number }
): Promise<void> {
	requireRole(context.actor, 'fill cylinders');
	if (!address) throw new Fault('unavailable', 'No fill panel is connected.');
	const open = await running(context.db, input.fillId);
	await withPanel(address, async (panel) => {
		const { cylinderC } = await panel.read();
		await panel.stopAt(targetNow(open.cylinder, cylinderC ?? HAND_C).stopAtBar);
		await panel.openBank(input.bank);
	});
	await inTransaction(context, (tx) =>
		record(tx, context.actor.id, {
			action: 'fill.bank',
			subject: `fill:${open.fill.id}`,
			itemId: open.fill.itemId,
			payload: { bank: input.bank }
		})
	);
}

/** Has a bank pumped up. */
export async function pumpBank(
	context: Context,
	address: PanelAddress,
	input: { bank: number }
): Promise<void> {
	requireRole(context.actor, 'fill cylinders');
	if (!address) throw new Fault('unavailable', 'No fill panel is connected.');
	await withPanel(address, (panel) => panel.pump(input.bank));
	await inTransaction(context, (tx) =>
		record(tx, context.actor.id, {
			action: 'fill.pumped',
			subject: 'fill-panel',
			payload: { bank: input.bank }
		})
	);
}

export interface FillNow {
	reading: PanelReading;
	target: FillTarget | null;
	points: FillPoint[];
	fillId: string | null;
}

/**
 * What the panel shows now, with the points of the fill from an index on. While a bank is open the pressure at which
 * the panel closes follows the temperature of the cylinder; left alone it closes earlier, never later.
 */
export async function fillNow(db: Connection, address: string, from: number): Promise<FillNow> {
	const open = await openFill(db);
	return withPanel(address, async (panel) => {
		const reading = await panel.read();
		const ours = open !== null && reading.tag === open.tag;
		const target =
			ours && reading.cylinderC !== null ? targetNow(open.cylinder, reading.cylinderC) : null;
		if (target && reading.openBank !== null) await panel.stopAt(target.stopAtBar);
		return {
			...{ reading, target, fillId: open?.fill.id ?? null },
			points: ours ? await panel.trace(from) : []
		};
	});
}

export interface FinishFill {
	id: string;
	/** Read by hand, where there is no panel or it does not answer. */
	hand?: { bar: number; celsius: number } | undefined;
}

/** Shuts the valves, reads what is in the cylinder and writes the fill down whole. */
export async function finishFill(
	context: Context,
	site: Site,
	address: PanelAddress,
	input: FinishFill
): Promise<{ outcome: 'full' | 'short'; settledBar: number }> {
	requireRole(context.actor, 'fill cylinders');
	const [done] = await context.db
		.select()
		.from(cylinderFill)
		.where(and(eq(cylinderFill.id, input.id), isNotNull(cylinderFill.endedAt)));
	if (done?.outcome) return { outcome: done.outcome, settledBar: done.settledBar ?? 0 };
	const open = await running(context.db, input.id);
	const end = input.hand
		? { ...input.hand, banksBar: null, trace: null }
		: await readEnd(address, open.tag);
	if (input.hand) await shutIfHeard(address);
	const { ratedBar, maximumBar } = open.cylinder;
	if (end.bar > maximumBar)
		throw new Fault(
			'invalid',
			`${end.bar} bar is above the ${maximumBar} bar of its stamp.`,
			'bar'
		);
	if (end.bar < open.fill.startBar - 2)
		throw new Fault(
			'invalid',
			`It came with ${open.fill.startBar} bar and would leave with ${end.bar}. Read again.`,
			'bar'
		);
	const settledBar = settledPressureBar(
		{ pressureBar: end.bar, temperatureC: end.celsius },
		RATED_C
	);
	const outcome = settledBar >= READY_SHARE * ratedBar ? 'full' : 'short';
	await inTransaction(context, async (tx) => {
		await tx
			.update(cylinderFill)
			.set({
				...{ endedAt: context.now(), endBar: end.bar, endC: end.celsius, settledBar, outcome },
				...{ banksBar: end.banksBar, trace: end.trace }
			})
			.where(eq(cylinderFill.id, input.id));
		await tx
			.update(cylinder)
			.set({ location: outcome === 'full' ? 'rack' : 'filling' })
			.where(eq(cylinder.itemId, open.fill.itemId));
		await record(tx, context.actor.id, {
			action: 'fill.ended',
			subject: `fill:${input.id}`,
			itemId: open.fill.itemId,
			payload: {
				...{ endBar: end.bar, endC: end.celsius, settledBar: Math.round(settledBar), outcome },
				source: open.source.name
			}
		});
		const cool = Number(settledBar.toFixed(1));
		await putPressure(tx, context, site, open.cylinder, cool, 'filled, as it will be when cool');
	});
	return { outcome, settledBar };
}

/** Shuts the valves of a panel that may be away: the figure is the one that was read by hand. */
async function shutIfHeard(address: PanelAddress): Promise<void> {
	if (!address) return;
	try {
		await withPanel(address, (panel) => panel.shut());
	} catch (error) {
		if (!(error instanceof Fault)) throw error;
	}
}

async function readEnd(address: PanelAddress, tag: string) {
	if (!address) throw new Fault('invalid', 'Read the gauge and write it down.', 'bar');
	return withPanel(address, async (panel) => {
		await panel.shut();
		const { cylinderBar, cylinderC, banksBar, tag: on } = await panel.read();
		if (on !== tag || cylinderBar === null || cylinderC === null)
			throw new Fault(
				'conflict',
				`${tag} is no longer on the panel. Read its gauge and write it down.`,
				'bar'
			);
		return { bar: cylinderBar, celsius: cylinderC, banksBar, trace: await panel.trace(0) };
	});
}

/** Notes what the look at a cylinder found: its fault is opened and holds it. */
export async function rejectCylinder(
	context: Context,
	site: Site,
	input: { id: string; tag: string; step: string; code: string }
): Promise<void> {
	requireRole(context.actor, 'fill cylinders');
	await inTransaction(context, async (tx) => {
		const { item: found } = await cylinderByTag(tx, site, input.tag);
		const [look] = await proceduresFor(tx, 'cylinder');
		const step = stepRejected(look, input);
		await openDefect(tx, context, {
			...{ id: input.id, itemId: found.id, station: step.station, code: input.code },
			...{ step: step.key, note: 'found at the fill' }
		});
		await rebuildState(tx, [found.id], site);
	});
}

/** Tells the simulated panel how to be. */
export async function simulatePanel(
	context: Context,
	address: PanelAddress,
	panel: SimulatedPanel
): Promise<void> {
	requireRole(context.actor, 'fill cylinders');
	if (!address) throw new Fault('unavailable', 'No fill panel is connected.');
	await withPanel(address, (p) => p.simulate(panel));
}
