import { SENSOR_FAULTS } from '../../../../instruments/pressure-bench/simulate.ts';
import type { TraceSample } from '../../../core/bench/trace.ts';
import { InstrumentError, LineClient } from './line-client.ts';

/** What the bench is told before a hold. */
export interface HoldSetup {
	setPa: number;
	seconds: number;
	perSecond: number;
}

/** How the simulated bench is to misbehave; a real one takes no notice. */
export interface Misbehaviour {
	leakPaPerMin: number;
	temperatureRiseK: number;
	fault: string;
	seed: number;
	/** Simulated seconds in one of ours. */
	speed: number;
}

/** Faults that the simulated bench can be told to have: of its sensor, or garbage on the line. */
export const MISBEHAVIOURS = ['none', ...SENSOR_FAULTS, 'garbage'] as const;

/** A pressure bench, simulated or real: the one way in that the application knows. */
export interface PressureBench {
	identify(): Promise<string>;
	start(setup: HoldSetup, misbehave?: Misbehaviour): Promise<void>;
	/** Readings from an index on; a listener that was away misses none. */
	fetch(from: number): Promise<TraceSample[]>;
	/** Idle: it knows of no hold. */
	state(): Promise<'idle' | 'running' | 'done'>;
	close(): void;
}

const READING = /^(-?\d+(?:\.\d+)?),(-?\d+(?:\.\d+)?),(-?\d+(?:\.\d+)?)?,(-?\d+(?:\.\d+)?)?$/;

/** The bench at an address such as 127.0.0.1:4100, over the line protocol. */
export function pressureBenchAt(address: string): PressureBench {
	const client = LineClient.to(address);
	const order = (line: string) => client.order(line);
	return {
		identify: () => client.ask('*IDN?'),
		async start({ setPa, seconds, perSecond }, misbehave) {
			await order(`CONF:HOLD ${setPa},${seconds},${perSecond}`);
			if (misbehave) {
				await order(`SIM:LEAK ${misbehave.leakPaPerMin}`);
				await order(`SIM:TEMP ${misbehave.temperatureRiseK}`);
				await order(`SIM:SEED ${misbehave.seed}`);
				await order(`SIM:SPEED ${misbehave.speed}`);
				await order(`SIM:FAULT ${misbehave.fault}`);
			}
			await order('INIT');
		},
		async fetch(from) {
			const answer = await client.ask(`FETC? ${from}`);
			if (answer === '') return [];
			return answer.split(';').map((word): TraceSample => {
				const found = READING.exec(word);
				// A reading is taken as it was sent or not at all.
				if (!found) throw new InstrumentError(`The instrument sent “${word.slice(0, 40)}”.`);
				const [, s, pa, temperature, barometer] = found;
				return {
					s: Number(s),
					pa: Number(pa),
					...(temperature ? { temperatureC: Number(temperature) } : {}),
					...(barometer ? { barometerPa: Number(barometer) } : {})
				};
			});
		},
		async state() {
			const [word = ''] = (await client.ask('STAT?')).split(',');
			const known = { IDLE: 'idle', RUN: 'running', DONE: 'done' } as const;
			if (word in known) return known[word as keyof typeof known];
			throw new InstrumentError(`The instrument sent “${word.slice(0, 40)}”.`);
		},
		close: () => client.close()
	};
}
