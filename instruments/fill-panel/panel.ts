import { Simulated } from '../line-server.ts';
import { barOf, densityOf, Panel, PANEL_FAULTS } from './simulate.ts';

/** A simulated fill panel behind the line protocol. Time in it runs some times as fast as ours. */
export class FillPanel extends Simulated {
	private readonly panel = new Panel();
	private speed = 20;
	private at = Date.now();
	/** What the next cylinder is like. */
	private next = { waterVolumeL: 6.8, bar: 40 };

	protected answer(head: string, rest: string): string | undefined {
		const { panel } = this;
		this.catchUp();
		switch (head) {
			case '*IDN?':
				return 'GREVAN,FILL-PANEL,SIMULATED,1';
			case 'CONF:CYL':
				if (!/^[A-Z0-9-]{2,20}$/.test(rest)) return this.fail('-224,"Illegal parameter value"');
				panel.connect(rest, this.next.waterVolumeL, this.next.bar);
				return 'OK';
			case 'CONF:STOP':
				return this.set(rest, 1, ([bar = 0]) => (panel.stopBar = bar));
			case 'INIT:BANK':
				if (!panel.cylinder) return this.fail('-221,"Settings conflict"');
				return this.bank(rest, (i) => {
					panel.open = i;
					panel.stopped = false;
				});
			case 'INIT:PUMP':
				return this.bank(rest, (i) => (panel.pumping = i));
			case 'ABOR':
				panel.open = null;
				return 'OK';
			case 'STAT?':
				return [
					this.state(),
					panel.cylinder?.tag ?? '',
					one(panel.open),
					one(panel.pumping)
				].join();
			case 'FETC?':
				return this.fetch();
			case 'TRAC?':
				return panel.trace
					.slice(Number(rest) || 0)
					.map((p) => `${p.s.toFixed(0)},${p.bar.toFixed(1)},${p.c.toFixed(1)}`)
					.join(';');
			case 'SIM:CYL':
				return this.set(
					rest,
					2,
					([waterVolumeL = 0, bar = 0]) => (this.next = { waterVolumeL, bar })
				);
			case 'SIM:BANK':
				return this.set(rest, 3, ([number = 0, waterVolumeL = 0, bar = 0]) => {
					const bank = panel.banks[number - 1];
					if (bank) Object.assign(bank, { waterVolumeL, density: densityOf(bar) });
				});
			case 'SIM:SPEED':
				return this.set(rest, 1, ([speed = 1]) => (this.speed = speed));
			case 'SIM:FAULT':
				return this.choose(rest, PANEL_FAULTS, (fault) => (panel.fault = fault));
		}
	}

	private catchUp(): void {
		const now = Date.now();
		// A long pause is not lived through step by step.
		this.panel.pass(Math.min(3600, ((now - this.at) / 1000) * this.speed));
		this.at = now;
	}

	private bank(rest: string, take: (index: number) => void): string {
		const index = Number(rest) - 1;
		if (!this.panel.banks[index]) return this.fail('-222,"Data out of range"');
		take(index);
		return 'OK';
	}

	private state(): string {
		const { panel } = this;
		if (!panel.cylinder) return 'IDLE';
		if (panel.stopped) return 'STOP';
		if (panel.open === null) return 'CONN';
		return panel.level ? 'LEVEL' : 'FLOW';
	}

	private fetch(): string {
		const { panel } = this;
		if (panel.fault === 'garbage') return '2?;7';
		const { cylinder } = panel;
		return [
			cylinder ? barOf(cylinder.density, cylinder.kelvin).toFixed(1) : '',
			cylinder ? (cylinder.kelvin - 273.15).toFixed(1) : '',
			...panel.banks.map((bank) => barOf(bank.density).toFixed(1))
		].join(',');
	}
}

const one = (index: number | null) => (index === null ? '' : index + 1);
