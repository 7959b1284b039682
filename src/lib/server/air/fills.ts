import { and, eq, isNotNull, isNull } from 'drizzle-orm';
import { mayFill } from '../../../core/air/cylinder.ts';
import { RATED_C, settledPressureBar } from '../../../core/air/settle.ts';
import { READY_SHARE } from '../../../core/bench/breathing-apparatus.ts';
import type { Connection } from '../db/client.ts';
import { cylinderFill, fillBatch } from '../db/schema/index.ts';
import { openDefect } from '../faults/faults.ts';
import { stepRejected } from '../inspection/procedures.ts';
import { panelExtrasAt } from '../instruments/simulated/fill-panel.ts';
import { withExtras } from '../instruments/with-instrument.ts';
import { type Context, type Reader, todayOf } from '../kernel/context.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import { readerOf, type Work, write, writeAfter } from '../kernel/write.ts';
import { requireAuthorisedOn } from '../people/authorisations.ts';
import { refuseRetired } from '../register/items.ts';
import { fillLook, openFill } from './fill-room.ts';
import { cylinderByTag, placeCylinder, putPressure } from './cylinders.ts';
import { noPanel, type PanelAddress, targetNow, withPanel } from './panel.ts';
import { sourceWithState } from './sources.ts';

const BY_HAND = 'read by hand';
/** A cylinder whose temperature is not read counts as cool, °C: it is stopped early, never late. Site default. */
const HAND_C = 15;
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
	address: PanelAddress,
	input: StartFill
): Promise<void> {
	const asked = { id: input.id, content: input };
	try {
		await writeAfter(
			context,
			'fill cylinders',
			asked,
			() => putOn(context, address, input),
			async (at, { instrument, startBar }) => {
				const { found } = await fillable(readerOf(at), input);
				await requireAuthorisedOn(at, 'fill cylinders', found.id);
				const batch = await batchFor(at, input.sourceId);
				await at.tx.insert(cylinderFill).values({
					id: input.id,
					batchId: batch.id,
					itemId: found.id,
					instrument,
					startBar,
					startedBy: at.actor.id,
					startedAt: at.now
				});
				await placeCylinder(at, found.id, 'filling');
				at.record('fill.started', {
					of: input.id,
					itemId: found.id,
					payload: { batch: batch.number, startBar, instrument, looked: true }
				});
			}
		);
	} catch (error) {
		if (brokenConstraint(error)?.includes('one_open'))
			throw new Refusal('conflict', 'Another cylinder is on the panel. End its fill first.', 'tag');
		throw error;
	}
}

/** A cylinder that may be filled now. @throws Refusal with every reason against it */
async function fillable(reader: Reader, input: StartFill) {
	if (!input.looked)
		throw new Refusal('invalid', 'Look at the cylinder first, at each fill.', 'looked');
	const { item: found, row, facts } = await cylinderByTag(reader.db, reader.site, input.tag);
	refuseRetired(found, 'tag');
	const verdict = mayFill(facts, todayOf(reader));
	if (verdict.outcome === 'refused')
		throw new Refusal(
			'conflict',
			`${found.tag}: ${verdict.reasons.map((r) => r.text).join(' ')}`,
			'tag'
		);
	return { found, row, facts };
}

/** Connects a cylinder to the panel, where there is one. @returns what it shows then */
async function putOn(context: Context, address: PanelAddress, input: StartFill) {
	const { found, row, facts } = await fillable(context, input);
	await sourceInForce(context, input.sourceId);
	const known = facts.pressureBar ?? 0;
	if (!address) return { instrument: BY_HAND, startBar: known };
	return withPanel(address, async (panel) => {
		const busy = await openFill(context.db);
		if (busy && busy.fill.id !== input.id)
			throw new Refusal('conflict', `${busy.tag} is on the panel. End its fill first.`, 'tag');
		await withExtras(panelExtrasAt(address), (extras) =>
			extras.cylinder({ waterVolumeL: row.waterVolumeL, bar: known })
		);
		await panel.connect(found.tag);
		const { cylinderBar } = await panel.read();
		return { instrument: await panel.identify(), startBar: cylinderBar ?? known };
	});
}

/** A source whose air may be given out by a test. @throws Refusal where none is in force */
async function sourceInForce(reader: Reader, sourceId: string) {
	const { source, state } = await sourceWithState(
		reader.db,
		reader.site,
		sourceId,
		todayOf(reader)
	);
	if (!source.fills) throw new Refusal('invalid', `${source.name} fills no cylinders.`, 'sourceId');
	if (state.testId === null)
		throw new Refusal(
			'conflict',
			`${source.name} gives no air out: ${state.reasons[0]?.text ?? ''}`,
			'sourceId'
		);
	return { source, testId: state.testId };
}

/** The open batch of a source, or a new one under the air test that is in force; refused where none is. */
async function batchFor(at: Work, sourceId: string) {
	const { tx } = at;
	const { testId } = await sourceInForce(readerOf(at), sourceId);
	const [open] = await tx
		.select()
		.from(fillBatch)
		.where(and(eq(fillBatch.sourceId, sourceId), isNull(fillBatch.closedAt)));
	if (open?.airTestId === testId) return open;
	if (open) await tx.update(fillBatch).set({ closedAt: at.now }).where(eq(fillBatch.id, open.id));
	const [batch] = await tx
		.insert(fillBatch)
		.values({
			id: crypto.randomUUID(),
			sourceId,
			airTestId: testId,
			openedBy: at.actor.id,
			openedAt: at.now
		})
		.returning();
	if (!batch) throw new RangeError('The batch was not written.');
	return batch;
}

/** The fill that something is about. @throws Refusal where it has ended */
async function running(db: Connection, id: string) {
	const open = await openFill(db);
	if (open?.fill.id !== id) throw new Refusal('conflict', 'This fill has ended.');
	return open;
}

/** Opens a bank to the cylinder. The panel is told first where to close by itself. */
export function openBank(
	context: Context,
	address: PanelAddress,
	input: { requestId: string; fillId: string; bank: number }
): Promise<void> {
	const { requestId: id, ...content } = input;
	const open = async () => {
		if (!address) throw noPanel();
		const fill = await running(context.db, input.fillId);
		await withPanel(address, async (panel) => {
			const { cylinderC } = await panel.read();
			await panel.stopAt(targetNow(fill.cylinder, cylinderC ?? HAND_C).stopAtBar);
			await panel.openBank(input.bank);
		});
		return fill;
	};
	return writeAfter(context, 'fill cylinders', { id, content }, open, async (at, { fill }) => {
		at.record('fill.bank', { of: fill.id, itemId: fill.itemId, payload: { bank: input.bank } });
	});
}

/** Has a bank pumped up. */
export function pumpBank(
	context: Context,
	address: PanelAddress,
	input: { requestId: string; bank: number }
): Promise<void> {
	const { requestId: id, bank } = input;
	const pump = async () => {
		if (!address) throw noPanel();
		await withPanel(address, (panel) => panel.pump(bank));
	};
	return writeAfter(
		context,
		'fill cylinders',
		{ id, content: { pump: bank } },
		pump,
		async (at) => {
			at.record('fill.pumped', { of: '1', payload: { bank } });
		}
	);
}

export interface FinishFill {
	requestId: string;
	id: string;
	/** Read by hand, where there is no panel or it does not answer. */
	hand?: { bar: number; celsius: number } | undefined;
}

export interface FillResult {
	outcome: 'full' | 'short';
	settledBar: number;
}

/** Shuts the valves, reads what is in the cylinder and writes the fill down whole. */
export function finishFill(
	context: Context,
	address: PanelAddress,
	input: FinishFill
): Promise<FillResult> {
	const { requestId, ...content } = input;
	const asked = { id: requestId, content };
	const end = async () => {
		if (await endedFill(context.db, input.id)) return null;
		return readEnd(context, address, input);
	};
	return writeAfter(context, 'fill cylinders', asked, end, async (at, read) => {
		const { tx } = at;
		const done = await endedFill(tx, input.id);
		if (done) return done;
		const open = await running(tx, input.id);
		if (!read) throw new Refusal('conflict', 'This fill has ended.');
		const settledBar = settledPressureBar(
			{ pressureBar: read.bar, temperatureC: read.celsius },
			RATED_C
		);
		const outcome = settledBar >= READY_SHARE * open.cylinder.ratedBar ? 'full' : 'short';
		await tx
			.update(cylinderFill)
			.set({
				endedAt: at.now,
				endBar: read.bar,
				endC: read.celsius,
				settledBar,
				outcome,
				banksBar: read.banksBar,
				trace: read.trace
			})
			.where(eq(cylinderFill.id, input.id));
		await placeCylinder(at, open.fill.itemId, outcome === 'full' ? 'rack' : 'filling');
		at.record('fill.ended', {
			of: input.id,
			itemId: open.fill.itemId,
			payload: {
				endBar: read.bar,
				endC: read.celsius,
				settledBar: Math.round(settledBar),
				outcome,
				source: open.source.name
			}
		});
		await putPressure(at, open.cylinder, {
			bar: Number(settledBar.toFixed(1)),
			why: 'filled, as it will be when cool'
		});
		return { outcome, settledBar };
	});
}

/** What a fill came to, where it has ended. */
async function endedFill(db: Connection, id: string): Promise<FillResult | null> {
	const [done] = await db
		.select({ outcome: cylinderFill.outcome, settledBar: cylinderFill.settledBar })
		.from(cylinderFill)
		.where(and(eq(cylinderFill.id, id), isNotNull(cylinderFill.endedAt)));
	return done?.outcome ? { outcome: done.outcome, settledBar: done.settledBar ?? 0 } : null;
}

/** What is in the cylinder at the end: read by hand, or off the panel once its valves are shut. */
async function readEnd(context: Context, address: PanelAddress, input: FinishFill) {
	const open = await running(context.db, input.id);
	const end = input.hand
		? { ...input.hand, banksBar: null, trace: null }
		: await readPanel(address, open.tag);
	if (input.hand) await shutIfHeard(address);
	const { maximumBar } = open.cylinder;
	if (end.bar > maximumBar)
		throw new Refusal(
			'invalid',
			`${end.bar} bar is above the ${maximumBar} bar of its stamp.`,
			'bar'
		);
	if (end.bar < open.fill.startBar - 2)
		throw new Refusal(
			'invalid',
			`It came with ${open.fill.startBar} bar and would leave with ${end.bar}. Read again.`,
			'bar'
		);
	return end;
}

/** Shuts the valves of a panel that may be away: the figure is the one that was read by hand. */
async function shutIfHeard(address: PanelAddress): Promise<void> {
	if (!address) return;
	try {
		await withPanel(address, (panel) => panel.shut());
	} catch (error) {
		if (!(error instanceof Refusal)) throw error;
	}
}

async function readPanel(address: PanelAddress, tag: string) {
	if (!address) throw new Refusal('invalid', 'Read the gauge and write it down.', 'bar');
	return withPanel(address, async (panel) => {
		await panel.shut();
		const { cylinderBar, cylinderC, banksBar, tag: on } = await panel.read();
		if (on !== tag || cylinderBar === null || cylinderC === null)
			throw new Refusal(
				'conflict',
				`${tag} is no longer on the panel. Read its gauge and write it down.`,
				'bar'
			);
		return { bar: cylinderBar, celsius: cylinderC, banksBar, trace: await panel.trace(0) };
	});
}

/** Notes what the look at a cylinder found: its fault is opened and holds it. */
export function rejectCylinder(
	context: Context,
	input: { id: string; tag: string; step: string; code: string }
): Promise<void> {
	return write(context, 'fill cylinders', { id: input.id, content: input }, async (at) => {
		const { item: found } = await cylinderByTag(at.tx, at.site, input.tag);
		const look = await fillLook(at.tx);
		const step = stepRejected(look, input);
		await openDefect(at, {
			id: input.id,
			itemId: found.id,
			station: step.station,
			code: input.code,
			step: step.key,
			note: 'found at the fill'
		});
	});
}
