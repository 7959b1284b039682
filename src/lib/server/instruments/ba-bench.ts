import { InstrumentError, LineClient } from './line-client.ts';

/** What the bench shows of the set that is on it, bar. */
export interface BaReading {
	highBar: number;
	mediumBar: number;
	/** What the gauge showed when the whistle began; null: it is quiet. */
	whistleBar: number | null;
}

/** A bench for breathing-apparatus sets. */
export interface BaBench {
	identify(): Promise<string>;
	/** Tag of the set that is on it, and whether it is being let down; null: none. */
	on(): Promise<{ tag: string; bleeding: boolean } | null>;
	/** Connects a set and opens its cylinder. */
	open(tag: string): Promise<void>;
	read(): Promise<BaReading>;
	/** Lets the set down slowly until it is empty. */
	bleed(): Promise<void>;
	close(): void;
}

const READING = /^(\d+(?:\.\d+)?),(\d+(?:\.\d+)?),(\d+(?:\.\d+)?)?$/;
const STATE = /^(IDLE|OPEN|BLEED),([A-Z0-9-]*)$/;

/** The bench at an address such as 127.0.0.1:4200, over the line protocol. */
export function baBenchAt(address: string): BaBench {
	const client = LineClient.to(address);
	const sent = (answer: string) => new InstrumentError(`The bench sent “${answer.slice(0, 40)}”.`);
	return {
		identify: () => client.ask('*IDN?'),
		async on() {
			const answer = await client.ask('STAT?');
			const found = STATE.exec(answer);
			if (!found) throw sent(answer);
			const [, state, tag = ''] = found;
			return state === 'IDLE' ? null : { tag, bleeding: state === 'BLEED' };
		},
		open: (tag) => client.order(`CONF:OPEN ${tag}`),
		async read() {
			const answer = await client.ask('FETC?');
			const found = READING.exec(answer);
			// A reading is taken as it was sent or not at all.
			if (!found) throw sent(answer);
			const [, high, medium, whistle] = found;
			return {
				highBar: Number(high),
				mediumBar: Number(medium),
				whistleBar: whistle === undefined ? null : Number(whistle)
			};
		},
		bleed: () => client.order('INIT:BLEED'),
		close: () => client.close()
	};
}
