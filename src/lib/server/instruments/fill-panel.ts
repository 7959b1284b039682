import type { FillPoint } from '../db/schema/index.ts';
import { InstrumentError, LineClient } from './line-client.ts';

export type PanelState = 'idle' | 'connected' | 'flowing' | 'level' | 'stopped';

/** What the panel shows. Banks count from 1 as their valves do. */
export interface PanelReading {
	state: PanelState;
	/** Tag of the cylinder on it. */
	tag: string | null;
	openBank: number | null;
	pumpedBank: number | null;
	cylinderBar: number | null;
	cylinderC: number | null;
	banksBar: number[];
}

/** A fill panel. */
export interface FillPanel {
	identify(): Promise<string>;
	read(): Promise<PanelReading>;
	/** A cylinder was put on. */
	connect(tag: string): Promise<void>;
	/** It closes by itself at this gauge pressure of the cylinder. */
	stopAt(bar: number): Promise<void>;
	openBank(bank: number): Promise<void>;
	shut(): Promise<void>;
	pump(bank: number): Promise<void>;
	/** The fill so far, from a point on. */
	trace(from: number): Promise<FillPoint[]>;
	close(): void;
}

const STATES: Record<string, PanelState> = {
	IDLE: 'idle',
	CONN: 'connected',
	FLOW: 'flowing',
	LEVEL: 'level',
	STOP: 'stopped'
};
const NUMBER = /^-?\d+(\.\d+)?$/;

/** The panel at an address such as 127.0.0.1:4300, over the line protocol. */
export function fillPanelAt(address: string): FillPanel {
	const client = LineClient.to(address);
	const sent = (answer: string) => new InstrumentError(`The panel sent “${answer.slice(0, 40)}”.`);
	/** A number as it was sent, null for nothing; never a guess. */
	const number = (word: string | undefined, answer: string): number | null => {
		if (word === undefined || word === '') return null;
		if (!NUMBER.test(word)) throw sent(answer);
		return Number(word);
	};
	return {
		identify: () => client.ask('*IDN?'),
		async read() {
			const state = await client.ask('STAT?');
			const [word = '', tag = '', open, pumped] = state.split(',');
			const known = STATES[word];
			if (!known) throw sent(state);
			const figures = await client.ask('FETC?');
			const [bar, celsius, ...banks] = figures.split(',');
			return {
				state: known,
				tag: tag || null,
				openBank: number(open, state),
				pumpedBank: number(pumped, state),
				cylinderBar: number(bar, figures),
				cylinderC: number(celsius, figures),
				banksBar: banks.map((bank) => number(bank, figures) ?? 0)
			};
		},
		connect: (tag) => client.order(`CONF:CYL ${tag}`),
		stopAt: (bar) => client.order(`CONF:STOP ${bar.toFixed(1)}`),
		openBank: (bank) => client.order(`INIT:BANK ${bank}`),
		shut: () => client.order('ABOR'),
		pump: (bank) => client.order(`INIT:PUMP ${bank}`),
		async trace(from) {
			const answer = await client.ask(`TRAC? ${from}`);
			if (answer === '') return [];
			return answer.split(';').map((point) => {
				const [s, bar, c] = point.split(',').map((word) => number(word, point));
				if (typeof s !== 'number' || typeof bar !== 'number' || typeof c !== 'number')
					throw sent(point);
				return { s, bar, c };
			});
		},
		close: () => client.close()
	};
}
