import {
	type SimulatedWearer,
	type TelemetryExtras,
	telemetryExtrasAt
} from '../instruments/simulated/telemetry.ts';
import { withExtras, withInstrument } from '../instruments/with-instrument.ts';
import type { Context } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import type { ReceiverAddress } from './board-keeper.ts';

/** Switches on simulated wearers. A real receiver knows its own and refuses, which changes nothing. */
export async function simulateWearers(
	context: Context,
	address: ReceiverAddress,
	wearers: readonly (SimulatedWearer & { channel: string })[]
): Promise<void> {
	requirePermission(context.actor.role, 'control entries');
	if (!address || wearers.length === 0) return;
	await withExtras(telemetryExtrasAt(address), async (telemetry) => {
		for (const { channel, ...wearer } of wearers) await telemetry.wearer(channel, wearer);
	});
}

export interface SimulatedChange {
	channel: string;
	lPerMin: number;
	fault: Parameters<TelemetryExtras['fault']>[1];
	speed: number;
}

/** Has a simulated wearer breathe otherwise, or the telemetry fail. @throws Refusal where the receiver is real */
export async function changeWearer(
	context: Context,
	address: ReceiverAddress,
	to: SimulatedChange
): Promise<void> {
	requirePermission(context.actor.role, 'control entries');
	if (!address) throw new Refusal('unavailable', 'No telemetry is connected.');
	await withInstrument(telemetryExtrasAt(address), '', async (telemetry) => {
		await telemetry.rate(to.channel, to.lPerMin);
		await telemetry.fault(to.channel, to.fault);
		await telemetry.speed(to.speed);
	});
}
