import type { CounterReading, FitStep } from '../../../core/fit/sequence.ts';
import { InstrumentError, LineClient } from './line-client.ts';

/** A particle counter for fit tests: the one way in that the application knows. */
export interface FitCounter {
	identify(): Promise<string>;
	/** Particles in the room, per cm³. */
	room(): Promise<number>;
	/** Begins a test: these steps, one after the other. */
	start(steps: readonly FitStep[]): Promise<void>;
	/** Goes through some of the steps again; what was read before stays. */
	again(steps: { from: number; to: number }): Promise<void>;
	stop(): Promise<void>;
	/** Readings from an index on; a listener that was away misses none. */
	fetch(from: number): Promise<CounterReading[]>;
	/** Idle: it knows of no test. */
	state(): Promise<'idle' | 'running' | 'done'>;
	close(): void;
}

const READING = /^(\d+(?:\.\d+)?),(\d+),(\d+),(\d+(?:\.\d+)?),(\d+(?:\.\d+)?)$/;
const NUMBER = /^\d+(?:\.\d+)?$/;

/** The counter at an address such as 127.0.0.1:4500, over the line protocol. */
export function fitCounterAt(address: string): FitCounter {
	const client = LineClient.to(address);
	const sent = (answer: string) =>
		new InstrumentError(`The counter sent “${answer.slice(0, 40)}”.`);
	return {
		identify: () => client.ask('*IDN?'),
		async room() {
			const answer = await client.ask('MEAS:ROOM?');
			if (!NUMBER.test(answer)) throw sent(answer);
			return Number(answer);
		},
		async start(steps) {
			const words = steps.map(
				({ line, seconds, exercise }) => `${line.toUpperCase()},${seconds},${exercise}`
			);
			await client.order(`CONF:SEQ ${words.join(';')}`);
			await client.order('INIT');
		},
		again: ({ from, to }) => client.order(`INIT:STEP ${from},${to}`),
		stop: () => client.order('ABOR'),
		async fetch(from) {
			const answer = await client.ask(`FETC? ${from}`);
			if (answer === '') return [];
			return answer.split(';').map((word): CounterReading => {
				const found = READING.exec(word);
				// A reading is taken as it was sent or not at all.
				if (!found) throw sent(word);
				const [s = 0, run = 0, step = 0, perCm3 = 0, flow = 0] = found.slice(1).map(Number);
				return { s, run, step, perCm3, flow };
			});
		},
		async state() {
			const answer = await client.ask('STAT?');
			const [word = ''] = answer.split(',');
			const known = { IDLE: 'idle', RUN: 'running', DONE: 'done' } as const;
			if (word in known) return known[word as keyof typeof known];
			throw sent(answer);
		},
		close: () => client.close()
	};
}
