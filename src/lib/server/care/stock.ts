import { asc, eq, isNull } from 'drizzle-orm';
import type { BathAgent } from '../../../core/care/wash-check.ts';
import { asAvailableChlorine } from '../../../core/care/dilution.ts';
import { checkDay } from '../../../core/plan/calendar.ts';
import type { Connection } from '../db/client.ts';
import { stockContainer } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { brokenConstraint, Refusal, stale } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';
import { percentNow } from './batches.ts';

const MOST_ML = 1_000_000;

export interface StockInput {
	id: string;
	name: string;
	agent: BathAgent;
	/** As its label says, %; of chlorine as sodium hypochlorite or as available chlorine. null: its label decides. */
	percent: number | null;
	strengthAs: 'available chlorine' | 'sodium hypochlorite';
	openedOn: string;
	halfLifeDays: number | null;
	expiresOn: string | null;
	leftMl: number;
	/** Minutes that its label asks for. */
	labelMin: number | null;
}

/** Opens a container of stock. */
export async function openStock(context: Context, input: StockInput): Promise<void> {
	try {
		await write(
			context,
			'keep stock for the bath',
			{ id: input.id, content: input },
			async (at) => {
				const { strengthAs, ...kept } = input;
				const name = input.name.trim();
				if (!name) throw new Refusal('invalid', 'Give it the name that stands on it.', 'name');
				checkDay(input.openedOn, 'openedOn');
				if (input.openedOn > at.today)
					throw new Refusal('invalid', 'It cannot have been opened later than today.', 'openedOn');
				if (input.expiresOn && checkDay(input.expiresOn, 'expiresOn') < input.openedOn)
					throw new Refusal('invalid', 'It was past its date when it was opened.', 'expiresOn');
				if (input.agent !== 'quaternary ammonium' && input.percent === null)
					throw new Refusal('invalid', 'Its strength stands on its label.', 'percent');
				if (input.percent !== null && !(input.percent > 0 && input.percent <= 100))
					throw new Refusal('invalid', 'Per cent, above 0.', 'percent');
				if (input.halfLifeDays !== null && !(input.halfLifeDays > 0))
					throw new Refusal('invalid', 'Days, above 0.', 'halfLifeDays');
				if (!(input.leftMl > 0 && input.leftMl <= MOST_ML))
					throw new Refusal('invalid', `Millilitres, up to ${MOST_ML}.`, 'leftMl');
				const percent =
					input.percent !== null &&
					input.agent === 'chlorine' &&
					strengthAs === 'sodium hypochlorite'
						? asAvailableChlorine(input.percent)
						: input.percent;
				await at.tx.insert(stockContainer).values({ ...kept, name, percent });
				at.record('stock.opened', {
					of: input.id,
					payload: { name, agent: input.agent, leftMl: input.leftMl }
				});
			}
		);
	} catch (error) {
		if (brokenConstraint(error) === 'stock_container_name')
			throw new Refusal('conflict', `Another container is called ${input.name}.`, 'name');
		throw error;
	}
}

/** Takes a container away: empty, or disposed of. */
export function closeStock(
	context: Context,
	input: { requestId: string; id: string; version: number }
): Promise<void> {
	const { requestId, ...content } = input;
	return write(context, 'keep stock for the bath', { id: requestId, content }, async (at) => {
		const [row] = await at.tx
			.select()
			.from(stockContainer)
			.where(eq(stockContainer.id, input.id))
			.for('update');
		if (!row) throw new Refusal('not found', 'There is no such container.');
		if (row.closedOn) return;
		if (row.version !== input.version) throw stale('container');
		await at.tx
			.update(stockContainer)
			.set({ closedOn: at.today, version: row.version + 1 })
			.where(eq(stockContainer.id, row.id));
		at.record('stock.changed', {
			of: row.id,
			payload: { name: row.name, what: `taken away with ${Math.round(row.leftMl)} mL in it` }
		});
	});
}

/** Containers that are in use, each with its strength on a day. */
export async function listStock(db: Connection, asOf: string) {
	const rows = await db
		.select()
		.from(stockContainer)
		.where(isNull(stockContainer.closedOn))
		.orderBy(asc(stockContainer.agent), asc(stockContainer.openedOn));
	return rows.map((row) => ({
		...row,
		percentNow: percentNow(row, asOf),
		expired: row.expiresOn !== null && row.expiresOn < asOf
	}));
}
