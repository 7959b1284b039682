import { bathThermometerAt } from '../instruments/bath-thermometer.ts';
import { BATH_FAULTS, bathExtrasAt } from '../instruments/simulated/bath-thermometer.ts';
import { answering } from '../instruments/addresses.ts';
import { withExtras, withInstrument } from '../instruments/with-instrument.ts';
import type { Context } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import { readBath } from './batches.ts';

export { BATH_FAULTS };
const BY_HAND = 'Read it yourself and type it in.';

/** Whether the thermometer of the wash line answers; null: there is none. */
export const thermometerState = (address: string | undefined) =>
	address ? answering(bathThermometerAt(address)) : null;

/** Reads the bath and keeps it with a batch. @returns °C */
export async function measureBath(
	context: Context,
	address: string | undefined,
	input: { id: string; batchId: string }
): Promise<{ celsius: number }> {
	requirePermission(context.actor.role, 'wash');
	if (!address) throw new Refusal('not found', `There is no thermometer. ${BY_HAND}`);
	const celsius = await withInstrument(bathThermometerAt(address), BY_HAND, (one) => one.read());
	await readBath(context, { ...input, celsius, measured: true });
	return { celsius };
}

/** Fills the simulated bath anew. */
export async function fillSimulatedBath(
	context: Context,
	address: string | undefined,
	input: { celsius: number; fault: (typeof BATH_FAULTS)[number] }
): Promise<void> {
	requirePermission(context.actor.role, 'wash');
	if (address)
		await withExtras(bathExtrasAt(address), (bath) => bath.fill(input.celsius, input.fault));
}
