import { runPage } from '../inspection/runs.ts';
import { type BaBench, baBenchAt, type BaReading } from '../instruments/ba-bench.ts';
import { baExtrasAt, type SimulatedSet } from '../instruments/simulated/ba-bench.ts';
import { withInstrument } from '../instruments/with-instrument.ts';
import type { Context } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import { writeAfter } from '../kernel/write.ts';
import { config } from '../web/config.ts';

/** The bench of this installation. @throws Refusal when it has none */
export function baBench(): string {
	const address = config().GREVAN_BA_BENCH;
	if (!address) throw new Refusal('not found', 'There is no BA bench: read the gauge yourself.');
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
		if (!(error instanceof Refusal)) throw error;
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
export function gaugeStep(
	context: Context,
	address: string,
	input: { requestId: string; runId: string; step: string; connect: boolean }
): Promise<Gauged> {
	const { requestId: id, ...content } = input;
	const read = () => readStep(context, address, input);
	return writeAfter(
		context,
		'inspect',
		{ id, content },
		read,
		async (at, { runId, itemId, gauged }) => {
			const { bar, instrument } = gauged;
			if (bar !== null)
				at.record('instrument.read', {
					of: runId,
					itemId,
					payload: { step: input.step, bar, instrument }
				});
			return gauged;
		}
	);
}

async function readStep(
	context: Context,
	address: string,
	input: { runId: string; step: string; connect: boolean }
): Promise<{ runId: string; itemId: string; gauged: Gauged }> {
	const { run, item, procedure } = await runPage(context, input.runId);
	if (run.signedAt) throw new Refusal('conflict', 'This inspection is signed.');
	const rule = procedure.steps.find((step) => step.key === input.step)?.reading;
	if (!rule) throw new Refusal('invalid', 'This step takes no reading.', 'step');
	const of = { runId: run.id, itemId: item.id };
	return withBench(address, async (bench) => {
		const on = await bench.on();
		const other = on !== null && on.tag !== item.tag;
		if (other && !input.connect)
			throw new Refusal('conflict', `${on.tag} is on the bench.`, 'connect');
		const listening = on?.tag === item.tag && on.bleeding;
		// A set that was let down is opened anew before its gauge says anything.
		if (on?.tag !== item.tag || (listening && rule.kind !== 'whistle')) await bench.open(item.tag);
		const instrument = await bench.identify();
		if (rule.kind === 'whistle' && !listening) {
			await bench.bleed();
			return { ...of, gauged: { bar: null, instrument } };
		}
		return { ...of, gauged: { bar: figureOf(rule.kind, await bench.read()), instrument } };
	});
}

function figureOf(kind: string, reading: BaReading): number {
	if (kind !== 'whistle') return reading.highBar;
	if (reading.whistleBar !== null) return reading.whistleBar;
	throw reading.highBar > 0
		? new Refusal('conflict', `Still quiet at ${reading.highBar} bar.`)
		: new Refusal('invalid', 'It was let down to nothing and never whistled. Reject the whistle.');
}

/** What the bench shows now. */
export const baReading = (address: string) => withBench(address, (bench) => bench.read());

/** Tells a simulated bench how the next set is. @throws Refusal where it is none */
export async function simulateSet(
	context: Context,
	address: string,
	set: SimulatedSet
): Promise<void> {
	requirePermission(context.actor.role, 'inspect');
	await withInstrument(baExtrasAt(address), '', (extras) => extras.set(set));
}
