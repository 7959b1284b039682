import { Simulated } from '../line-server.ts';
import { SET_FAULTS, setState, type SetOptions, type SetState } from './simulate.ts';

/** A simulated bench for breathing-apparatus sets behind the line protocol; one set is on it at a time. */
export class BaBench extends Simulated {
	private readonly options: SetOptions = {
		fillBar: 296,
		leakBarPerMin: 0.8,
		whistleBar: 55,
		mediumBar: 7.2,
		bleedBarPerS: 8,
		fault: 'none'
	};
	private on = '';
	private openedAt = 0;
	private bleedAt: number | null = null;

	protected answer(head: string, rest: string): string | undefined {
		switch (head) {
			case '*IDN?':
				return 'GREVAN,BA-BENCH,SIMULATED,1';
			case 'CONF:OPEN':
				if (!/^[A-Z0-9-]{2,20}$/.test(rest)) return this.fail('-224,"Illegal parameter value"');
				this.on = rest;
				this.openedAt = Date.now();
				this.bleedAt = null;
				return 'OK';
			case 'INIT:BLEED':
				if (!this.on) return this.fail('-221,"Settings conflict"');
				this.bleedAt ??= Date.now();
				return 'OK';
			case 'STAT?':
				return this.on ? `${this.bleedAt === null ? 'OPEN' : 'BLEED'},${this.on}` : 'IDLE,';
			case 'FETC?':
				return this.fetch();
			case 'SIM:SET':
				return this.set(rest, 4, ([fillBar = 0, leakBarPerMin = 0, whistleBar = 0, bleed = 0]) =>
					Object.assign(this.options, { fillBar, leakBarPerMin, whistleBar, bleedBarPerS: bleed })
				);
			case 'SIM:FAULT':
				return this.choose(rest, SET_FAULTS, (fault) => (this.options.fault = fault));
		}
	}

	private fetch(): string {
		if (!this.on) return this.fail('-230,"Data corrupt or stale"');
		if (this.options.fault === 'garbage') return '29#.?';
		const now = Date.now();
		const bleedS = this.bleedAt === null ? null : (now - this.bleedAt) / 1000;
		const state: SetState = setState(this.options, (now - this.openedAt) / 1000, bleedS);
		return [
			state.highBar.toFixed(1),
			state.mediumBar.toFixed(2),
			state.whistleBar === null ? '' : state.whistleBar.toFixed(1)
		].join(',');
	}
}
