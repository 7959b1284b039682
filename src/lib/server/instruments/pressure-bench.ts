import type { TraceSample } from '../../../core/bench/trace.ts';
import { InstrumentError, LineClient } from './line-client.ts';

/** What the bench is told before a hold. */
export interface HoldSetup {
	setPa: number;
	seconds: number;
	perSecond: number;
}

/** A pressure bench: the one way in that the application knows. */
export interface PressureBench {
	identify(): Promise<string>;
	start(setup: HoldSetup): Promise<void>;
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
		async start({ setPa, seconds, perSecond }) {
			await order(`CONF:HOLD ${setPa},${seconds},${perSecond}`);
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
