// Simulated pressure benches in a process of their own: a plain line protocol over TCP on loopback, in the style of
// the open SCPI standard. Prints the ports they listen on. Ends with the process that started it.
import { createServer, type AddressInfo, type Socket } from 'node:net';
import {
	benchTrace,
	SENSOR_FAULTS,
	type BenchOptions,
	type BenchReading,
	type SensorFault
} from './simulate.ts';

const FAULTS: readonly SensorFault[] = ['none', ...SENSOR_FAULTS];

/** One bench; every connection speaks to the same one. */
class Bench {
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
	private error = '';

	/** Answers one line; undefined for a command that gives none. */
	command(line: string): string | undefined {
		const [head = '', ...rest] = line.trim().split(/\s+/);
		const arg = rest.join(' ');
		const numbers = arg.split(',').map(Number);
		switch (head.toUpperCase()) {
			case '*IDN?':
				return 'GREVAN,PRESSURE-BENCH,SIMULATED,1';
			case 'CONF:HOLD':
				return this.set(numbers, 3, ([setPa = 0, seconds = 0, perSecond = 0]) =>
					Object.assign(this.options, { setPa, seconds, perSecond })
				);
			case 'SIM:LEAK':
				return this.set(numbers, 1, ([leakPaPerMin = 0]) =>
					Object.assign(this.options, { leakPaPerMin })
				);
			case 'SIM:TEMP':
				return this.set(numbers, 1, ([temperatureRiseK = 0]) =>
					Object.assign(this.options, { temperatureRiseK })
				);
			case 'SIM:SEED':
				return this.set(numbers, 1, ([seed = 1]) => Object.assign(this.options, { seed }));
			case 'SIM:SPEED':
				return this.set(numbers, 1, ([speed = 1]) => (this.speed = Math.max(0.1, speed)));
			case 'SIM:FAULT':
				this.garbage = arg === 'garbage';
				if (this.garbage) this.options.fault = 'none';
				else if (FAULTS.includes(arg as SensorFault)) this.options.fault = arg as SensorFault;
				else return this.fail('-224,"Illegal parameter value"');
				return 'OK';
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
				return this.fetch(numbers[0] ?? 0);
			case 'SYST:ERR?': {
				const said = this.error || '0,"No error"';
				this.error = '';
				return said;
			}
			default:
				return head ? this.fail('-113,"Undefined header"') : undefined;
		}
	}

	private fail(error: string): string {
		this.error = error;
		return 'ERR';
	}

	private set(numbers: number[], count: number, take: (numbers: number[]) => unknown): string {
		if (numbers.length !== count || numbers.some((n) => !Number.isFinite(n)))
			return this.fail('-104,"Data type error"');
		take(numbers);
		return 'OK';
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

/** Hears one connection to a bench, line by line. */
function hear(bench: Bench, socket: Socket): void {
	let rest = '';
	socket.setEncoding('utf8');
	socket.on('error', () => socket.destroy());
	socket.on('data', (chunk: string) => {
		rest += chunk;
		for (let end = rest.indexOf('\n'); end >= 0; end = rest.indexOf('\n')) {
			const answer = bench.command(rest.slice(0, end));
			rest = rest.slice(end + 1);
			if (answer !== undefined) socket.write(`${answer}\n`);
		}
	});
}

// How many benches; each listens on a port of its own.
const ports = await Promise.all(
	Array.from({ length: Number(process.argv[2] ?? 2) }, () => {
		const bench = new Bench();
		const server = createServer((socket) => hear(bench, socket));
		return new Promise<number>((resolve) =>
			server.listen(0, '127.0.0.1', () => resolve((server.address() as AddressInfo).port))
		);
	})
);
process.stdout.write(`${ports.join(',')}\n`);
process.on('disconnect', () => process.exit(0));
