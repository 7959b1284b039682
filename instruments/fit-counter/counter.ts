import { Simulated } from '../line-server.ts';
import {
	COUNTER_FAULTS,
	counterSeconds,
	type CounterSecond,
	type CounterStep,
	type Face,
	roomAt
} from './simulate.ts';

/** Readings after which one is unplugged that is to be. */
const UNPLUGGED_AFTER = 80;

/** A simulated particle counter behind the line protocol. */
export class FitCounter extends Simulated {
	private face: Face = {
		seed: 1,
		roomPerCm3: 4000,
		driftPerMin: 0,
		fit: { '': 4000 },
		fault: 'none'
	};
	private steps: CounterStep[] = [];
	private seconds: CounterSecond[] = [];
	private run = 0;
	private taken = 0;
	private startedAt = 0;
	private startedFrom = 0;
	/** Simulated seconds that pass in one of ours. */
	private speed = 1;

	/** One that was unplugged in the middle of a test answers nothing any more, until it is plugged in. */
	override command(head: string, rest: string): string | undefined {
		const dead = this.face.fault === 'unplugged' && this.available() >= UNPLUGGED_AFTER;
		return dead && !head.startsWith('SIM:') ? undefined : super.command(head, rest);
	}

	protected answer(head: string, rest: string): string | undefined {
		switch (head) {
			case '*IDN?':
				return 'GREVAN,FIT-COUNTER,SIMULATED,1';
			case 'MEAS:ROOM?':
				return roomAt(this.face, 0).toFixed(1);
			case 'CONF:SEQ':
				return this.sequence(rest);
			case 'INIT':
				return this.begin(0, this.steps.length - 1, true);
			case 'INIT:STEP':
				return this.set(rest, 2, ([from = 0, to = 0]) => this.begin(from, to, false));
			case 'ABOR':
				this.seconds = [];
				this.taken = 0;
				return 'OK';
			case 'STAT?':
				return this.status();
			case 'FETC?':
				return this.fetch(Number(rest) || 0);
			case 'SIM:FACE':
				return this.set(rest, 3, ([seed = 1, roomPerCm3 = 0, driftPerMin = 0]) =>
					Object.assign(this.face, { seed, roomPerCm3, driftPerMin })
				);
			case 'SIM:FIT':
				return this.fits(rest);
			case 'SIM:SPEED':
				return this.set(rest, 1, ([speed = 1]) => (this.speed = Math.max(0.1, speed)));
			case 'SIM:FAULT':
				return this.choose(rest, COUNTER_FAULTS, (fault) => {
					// What is over is over: it is the next test that it is unplugged in.
					if (this.status().startsWith('DONE')) {
						this.seconds = [];
						this.taken = 0;
					}
					this.face.fault = fault;
				});
		}
	}

	/** Steps as line,seconds,movement; one after the other. */
	private sequence(rest: string): string {
		const steps = rest.split(';').map((word) => /^(ROOM|MASK),(\d{1,4}),([a-z0-9]*)$/.exec(word));
		if (steps.some((found) => found === null)) return this.fail('-104,"Data type error"');
		this.steps = steps.map((found) => ({
			line: found?.[1] === 'ROOM' ? 'room' : 'mask',
			seconds: Number(found?.[2]),
			label: found?.[3] ?? ''
		}));
		this.seconds = [];
		this.taken = 0;
		return 'OK';
	}

	/** Movements with their true fit: bend=120,talk=900; the one without a name holds for the rest. */
	private fits(rest: string): string {
		const fits = rest.split(',').map((word) => /^([a-z0-9]*)=(\d+(?:\.\d+)?)$/.exec(word));
		if (fits.some((found) => found === null)) return this.fail('-104,"Data type error"');
		this.face.fit = Object.fromEntries(
			fits.map((found) => [found?.[1] ?? '', Number(found?.[2])] as const)
		);
		return 'OK';
	}

	private begin(from: number, to: number, anew: boolean): string {
		if (!this.steps[from] || !this.steps[to] || to < from)
			return this.fail('-221,"Settings conflict"');
		const read = anew ? [] : this.seconds.slice(0, this.available());
		const startS = read.at(-1)?.s ?? 0;
		this.run = anew ? 1 : this.run + 1;
		this.seconds = [
			...read,
			...counterSeconds(this.face, this.steps, { from, to, run: this.run, startS })
		];
		this.taken = read.length;
		this.startedFrom = startS;
		this.startedAt = Date.now();
		return 'OK';
	}

	/** How many seconds were read by now. */
	private available(): number {
		const passed = this.startedFrom + ((Date.now() - this.startedAt) / 1000) * this.speed;
		while (this.taken < this.seconds.length && (this.seconds[this.taken]?.s ?? 0) <= passed)
			this.taken++;
		return this.taken;
	}

	private status(): string {
		if (this.seconds.length === 0) return 'IDLE,0';
		const ready = this.available();
		return `${ready === this.seconds.length ? 'DONE' : 'RUN'},${ready}`;
	}

	/** Readings from an index on, so that a listener that was away misses none. */
	private fetch(from: number): string {
		return this.seconds
			.slice(from, Math.min(this.available(), from + 500))
			.map(({ s, run, step, perCm3, flow }) => [s, run, step, perCm3, flow].join(','))
			.join(';');
	}
}
