import { record } from './audit.ts';
import { config } from './config.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import { Fault } from './errors.ts';
import {
	baBenchAt,
	type BaBench,
	type BaReading,
	type SimulatedSet
} from './instruments/ba-bench.ts';
import { withInstrument } from './instruments/with-instrument.ts';
import { runPage } from './inspections.ts';

/** The bench of this installation. @throws Fault when it has none */
export function baBench(): string {
	const address = config().GREVAN_BA_BENCH;
	if (!address) throw new Fault('not found', 'There is no BA bench: read the gauge yourself.');
	return address;
}

const withBench = <T>(address: string, work: (bench: BaBench) => Promise<T>): Promise<T> =>
	withInstrument(baBenchAt(address), 'Read the gauge yourself, or try again.', work);

/** What the bench calls itself and which set is on it. */
export async function baBenchState(address: string) {
	const about = { name: 'BA bench' };
	try {
		return await withBench(address, async (bench) => ({
			...about,
			live: true,
			says: await bench.identify(),
			on: (await bench.on())?.tag ?? null
		}));
	} catch (error) {
		if (!(error instanceof Fault)) throw error;
		return { ...about, live: false, says: error.message, on: null };
	}
}

/** A figure that the bench gave for a step; null while the whistle is being waited for. */
export interface Gauged {
	bar: number | null;
	instrument: string;
}

/**
 * Reads the bench for a step of an inspection: the gauge, or the pressure at which the whistle begins, for which the
 * set is let down. Each figure goes into the record with the name of the instrument; the person still takes it.
 */
export async function gaugeStep(
	context: Context,
	address: string,
	input: { runId: string; step: string; connect: boolean }
): Promise<Gauged> {
	requireRole(context.actor, 'inspect');
	const { run, item, procedure } = await runPage(context, input.runId);
	if (run.signedAt) throw new Fault('conflict', 'This inspection is signed.');
	const rule = procedure.steps.find((step) => step.key === input.step)?.reading;
	if (!rule) throw new Fault('invalid', 'This step takes no reading.', 'step');
	return withBench(address, async (bench) => {
		const on = await bench.on();
		const other = on !== null && on.tag !== item.tag;
		if (other && !input.connect)
			throw new Fault('conflict', `${on.tag} is on the bench.`, 'connect');
		const listening = on?.tag === item.tag && on.bleeding;
		// A set that was let down is opened anew before its gauge says anything.
		if (on?.tag !== item.tag || (listening && rule.kind !== 'whistle')) await bench.open(item.tag);
		const instrument = await bench.identify();
		if (rule.kind === 'whistle' && !listening) {
			await bench.bleed();
			return { bar: null, instrument };
		}
		const bar = figureOf(rule.kind, await bench.read());
		await inTransaction(context, (tx) =>
			record(tx, context.actor.id, {
				action: 'instrument.read',
				subject: `run:${run.id}`,
				itemId: item.id,
				payload: { step: input.step, bar, instrument }
			})
		);
		return { bar, instrument };
	});
}

function figureOf(kind: string, reading: BaReading): number {
	if (kind !== 'whistle') return reading.highBar;
	if (reading.whistleBar !== null) return reading.whistleBar;
	throw reading.highBar > 0
		? new Fault('conflict', `Still quiet at ${reading.highBar} bar.`)
		: new Fault('invalid', 'It was let down to nothing and never whistled. Reject the whistle.');
}

/** What the bench shows now. */
export const baReading = (address: string) => withBench(address, (bench) => bench.read());

/** Tells the simulated bench how the next set is. */
export async function simulateSet(
	context: Context,
	address: string,
	set: SimulatedSet
): Promise<void> {
	requireRole(context.actor, 'inspect');
	await withBench(address, (bench) => bench.simulate(set));
}
