import { Simulated } from '../line-server.ts';
import {
	benchTrace,
	SENSOR_FAULTS,
	type BenchOptions,
	type BenchReading,
	type SensorFault
} from './simulate.ts';

const FAULTS: readonly (SensorFault | 'garbage')[] = ['none', ...SENSOR_FAULTS, 'garbage'];

/** A simulated pressure bench behind the line protocol. */
export class PressureBench extends Simulated {
	private options: BenchOptions = {
		seed: 1,
		setPa: 1650,
		seconds: 360,
		perSecond: 2,
		leakPaPerMin: 15,
		settlingPa: 25,
		settlingS: 30,
		measuresTemperature: true,
		measuresBarometer: true,
		barometerDriftPa: 4
	};
	/** Simulated seconds that pass in one of ours. */
	private speed = 1;
	private garbage = false;
	private trace: BenchReading[] = [];
	private taken = 0;
	private startedAt = 0;

	protected answer(head: string, rest: string): string | undefined {
		switch (head) {
			case '*IDN?':
				return 'GREVAN,PRESSURE-BENCH,SIMULATED,1';
			case 'CONF:HOLD':
				return this.set(rest, 3, ([setPa = 0, seconds = 0, perSecond = 0]) =>
					Object.assign(this.options, { setPa, seconds, perSecond })
				);
			case 'SIM:LEAK':
				return this.set(rest, 1, ([leakPaPerMin = 0]) =>
					Object.assign(this.options, { leakPaPerMin })
				);
			case 'SIM:TEMP':
				return this.set(rest, 1, ([temperatureRiseK = 0]) =>
					Object.assign(this.options, { temperatureRiseK })
				);
			case 'SIM:SEED':
				return this.set(rest, 1, ([seed = 1]) => Object.assign(this.options, { seed }));
			case 'SIM:SPEED':
				return this.set(rest, 1, ([speed = 1]) => (this.speed = Math.max(0.1, speed)));
			case 'SIM:FAULT':
				return this.choose(rest, FAULTS, (fault) => {
					this.garbage = fault === 'garbage';
					this.options.fault = fault === 'garbage' ? 'none' : fault;
				});
			case 'INIT':
				this.trace = benchTrace(this.options);
				this.taken = 0;
				this.startedAt = Date.now();
				return 'OK';
			case 'ABOR':
				this.trace = [];
				return 'OK';
			case 'STAT?':
				return this.status();
			case 'FETC?':
				return this.fetch(Number(rest) || 0);
		}
	}

	/** How many readings have been taken by now. */
	private available(): number {
		const passed = ((Date.now() - this.startedAt) / 1000) * this.speed;
		while (this.taken < this.trace.length && (this.trace[this.taken]?.s ?? 0) <= passed)
			this.taken++;
		return this.taken;
	}

	private status(): string {
		if (this.trace.length === 0) return 'IDLE,0';
		const ready = this.available();
		return `${ready === this.trace.length ? 'DONE' : 'RUN'},${ready}`;
	}

	/** Readings from an index on, so that a listener that was away misses none. */
	private fetch(from: number): string {
		const part = this.trace.slice(from, Math.min(this.available(), from + 500));
		const words = part.map((r) =>
			[r.s, r.pa.toFixed(2), r.temperatureC?.toFixed(3), r.barometerPa?.toFixed(1)].join(',')
		);
		if (this.garbage && Math.random() < 0.3) words.unshift('#@!');
		return words.join(';');
	}
}
