import { count, desc, eq, isNotNull, isNull } from 'drizzle-orm';
import type { FillTarget } from '../../../core/air/settle.ts';
import { familiesWhere } from '../../../core/data/family-records.ts';
import type { Connection } from '../db/client.ts';
import {
	airSource,
	cylinder,
	cylinderFill,
	fillBatch,
	type FillPoint,
	item,
	user
} from '../db/schema/index.ts';
import { proceduresFor, whatCanBeWrong } from '../inspection/procedures.ts';
import type { PanelReading } from '../instruments/fill-panel.ts';
import type { Context } from '../kernel/context.ts';
import { listCylinders } from './cylinder-lists.ts';
import { type PanelAddress, panelState, targetNow, withPanel } from './panel.ts';
import { listSources } from './sources.ts';

/** Empties that the fill room lists. */
const QUEUE = 40;

/** Everything that the fill room shows. */
export async function fillRoom(context: Context, address: PanelAddress) {
	const { db } = context;
	const [sources, queue, panel] = [
		await listSources(context),
		await listCylinders(context, { location: 'filling' }, 1, QUEUE),
		await panelState(address)
	];
	const open = await openFill(db);
	const look = await fillLook(db);
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

/** The look at a cylinder at each fill. */
export async function fillLook(db: Connection) {
	const [filled = ''] = familiesWhere((f) => f.air === 'cylinder');
	const [look] = await proceduresFor(db, filled);
	return look;
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
			reading,
			target,
			fillId: open?.fill.id ?? null,
			points: ours ? await panel.trace(from) : []
		};
	});
}
