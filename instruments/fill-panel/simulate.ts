/** A simulated fill panel: banks, one cylinder, a valve between them, a compressor that pumps a bank up. */
import { ATMOSPHERE_BAR, densityAt, isotherm, pressureAt } from '../../src/core/air/air-state.ts';

export const PANEL_FAULTS = ['none', 'no flow', 'garbage'] as const;
export type PanelFault = (typeof PANEL_FAULTS)[number];

export interface PanelBank {
	waterVolumeL: number;
	fullBar: number;
	/** Density of the air in it, mol/L. */
	density: number;
}

export interface PanelCylinder {
	tag: string;
	waterVolumeL: number;
	density: number;
	kelvin: number;
}

const ROOM_K = 291.15;
const ROOM = isotherm(ROOM_K);
/** How fast bank and cylinder come level, 1/s of what is between them in a cylinder of 6.8 L. */
const FLOW_PER_S = 1 / 45;
/** Rise of temperature of the air in a cylinder with each bar that goes in, and how fast it cools. */
const [K_PER_BAR, COOLING_PER_S] = [0.09, 1 / 240];
const PUMP_BAR_PER_S = 0.5;
const STEP_S = 1;

/** Pressure in a vessel, gauge bar. */
export const barOf = (density: number, kelvin = ROOM_K) =>
	density <= 0
		? 0
		: Math.max(
				0,
				pressureAt(kelvin === ROOM_K ? ROOM : isotherm(kelvin), density) - ATMOSPHERE_BAR
			);
export const densityOf = (bar: number) => densityAt(ROOM, bar + ATMOSPHERE_BAR);

export class Panel {
	banks: PanelBank[] = [200, 250, 300].map((bar) => ({
		waterVolumeL: 50,
		fullBar: 300,
		density: densityOf(bar)
	}));
	cylinder: PanelCylinder | null = null;
	/** Which bank is open, which is being pumped up. */
	open: number | null = null;
	pumping: number | null = null;
	stopBar = 300;
	stopped = false;
	fault: PanelFault = 'none';
	trace: { s: number; bar: number; c: number }[] = [];
	private seconds = 0;

	connect(tag: string, waterVolumeL: number, bar: number): void {
		this.cylinder = { tag, waterVolumeL, density: densityOf(bar), kelvin: ROOM_K };
		[this.open, this.stopped, this.seconds, this.trace] = [null, false, 0, []];
		this.note();
	}

	/** Bank and cylinder stand level: nothing more comes from it. */
	get level(): boolean {
		const bank = this.open === null ? undefined : this.banks[this.open];
		if (!bank || !this.cylinder) return false;
		return barOf(bank.density) - barOf(this.cylinder.density, this.cylinder.kelvin) < 1.5;
	}

	/** Lets some simulated seconds pass. */
	pass(seconds: number): void {
		for (let left = seconds; left > 0; left -= STEP_S) this.step(Math.min(STEP_S, left));
	}

	private step(s: number): void {
		const pumped = this.pumping === null ? undefined : this.banks[this.pumping];
		if (pumped) {
			const bar = Math.min(pumped.fullBar, barOf(pumped.density) + PUMP_BAR_PER_S * s);
			pumped.density = densityOf(bar);
			if (bar >= pumped.fullBar) this.pumping = null;
		}
		const { cylinder } = this;
		if (!cylinder) return;
		this.seconds += s;
		const before = barOf(cylinder.density, cylinder.kelvin);
		const bank = this.open === null ? undefined : this.banks[this.open];
		if (bank && this.fault !== 'no flow') {
			const between = Math.max(0, barOf(bank.density) - before);
			const inBar = Math.min(between * FLOW_PER_S * s, Math.max(0, this.stopBar - before));
			const moles = cylinder.waterVolumeL * (densityOf(before + inBar) - densityOf(before));
			bank.density -= moles / bank.waterVolumeL;
			cylinder.density += moles / cylinder.waterVolumeL;
			cylinder.kelvin += K_PER_BAR * inBar;
		}
		cylinder.kelvin -= (cylinder.kelvin - ROOM_K) * COOLING_PER_S * s;
		if (bank && barOf(cylinder.density, cylinder.kelvin) >= this.stopBar - 0.3) {
			this.open = null;
			this.stopped = true;
		}
		const last = this.trace.at(-1);
		if (!last || this.seconds - last.s >= 4) this.note();
	}

	private note(): void {
		const { cylinder } = this;
		if (!cylinder) return;
		this.trace.push({
			s: this.seconds,
			bar: barOf(cylinder.density, cylinder.kelvin),
			c: cylinder.kelvin - 273.15
		});
	}
}
