import { Simulated } from '../line-server.ts';
import { bathC, BATH_FAULTS, type BathOptions } from './simulate.ts';

/** A simulated thermometer in the bath of the wash line, behind the line protocol. */
export class BathThermometer extends Simulated {
	private readonly options: BathOptions = { fillC: 41, roomC: 19, halfMin: 40, fault: 'none' };
	private filledAt = Date.now();

	protected answer(head: string, rest: string): string | undefined {
		switch (head) {
			case '*IDN?':
				return 'GREVAN,BATH-THERMOMETER,SIMULATED,1';
			case 'MEAS:TEMP?':
				return this.read();
			case 'SIM:FILL':
				return this.set(rest, 1, ([fillC = 0]) => {
					this.options.fillC = fillC;
					this.filledAt = Date.now();
				});
			case 'SIM:FAULT':
				return this.choose(rest, BATH_FAULTS, (fault) => (this.options.fault = fault));
		}
	}

	private read(): string {
		if (this.options.fault === 'garbage') return '4?,-';
		if (this.options.fault === 'broken lead') return this.fail('-240,"Hardware error"');
		return bathC(this.options, (Date.now() - this.filledAt) / 60_000).toFixed(1);
	}
}
