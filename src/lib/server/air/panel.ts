import { fillTarget, type FillTarget } from '../../../core/air/settle.ts';
import type { cylinder } from '../db/schema/index.ts';
import { type FillPanel, fillPanelAt, type PanelReading } from '../instruments/fill-panel.ts';
import { panelExtrasAt, type SimulatedPanel } from '../instruments/simulated/fill-panel.ts';
import { withInstrument } from '../instruments/with-instrument.ts';
import type { Context } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';

/** Address of the fill panel; without one fills are written down by hand. */
export type PanelAddress = string | undefined;

/** Works with the panel; a refusal that says what to do by hand where it does not answer. */
export const withPanel = <T>(address: string, work: (panel: FillPanel) => Promise<T>): Promise<T> =>
	withInstrument(
		fillPanelAt(address),
		'Close the valves by hand and read the gauge yourself.',
		work
	);

export const noPanel = () => new Refusal('unavailable', 'No fill panel is connected.');

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
		if (!(error instanceof Refusal)) throw error;
		return { reading: null, says: error.message };
	}
}

/** Where to stop now: at the temperature that the cylinder has. */
export const targetNow = (
	row: Pick<typeof cylinder.$inferSelect, 'ratedBar' | 'maximumBar'>,
	celsius: number
): FillTarget => fillTarget(row.ratedBar, row.maximumBar, celsius);

/** Tells a simulated panel how to be. @throws Refusal where it is none */
export async function simulatePanel(
	context: Context,
	address: PanelAddress,
	how: SimulatedPanel
): Promise<void> {
	requirePermission(context.actor.role, 'fill cylinders');
	if (!address) throw noPanel();
	await withInstrument(panelExtrasAt(address), '', (extras) => extras.behave(how));
}
