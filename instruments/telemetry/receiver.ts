import { cylinderContent } from '../../src/core/air/content.ts';
import {
	ATMOSPHERE_BAR,
	FREE_AIR_MOL_PER_L,
	isothermOf,
	pressureAt
} from '../../src/core/air/air-state.ts';
import { Simulated } from '../line-server.ts';

export const TELEMETRY_FAULTS = ['none', 'lost', 'jump', 'frozen', 'garbage'] as const;
export type TelemetryFault = (typeof TELEMETRY_FAULTS)[number];

interface Channel {
	waterVolumeL: number;
	startBar: number;
	lPerMin: number;
	/** When it was switched on, and the litres taken up to the last change of its figures. */
	since: number;
	takenL: number;
	fault: TelemetryFault;
	frozenBar: number;
}

const JUMP_BAR = 90;
const AIR = isothermOf(20);

/** A simulated receiver for the gauges of wearers: one channel each. Time in it runs some times as fast as ours. */
export class TelemetryReceiver extends Simulated {
	private readonly channels = new Map<string, Channel>();
	private speed = 1;

	protected answer(head: string, rest: string): string | undefined {
		const [name = '', ...words] = rest.split(',');
		switch (head) {
			case '*IDN?':
				return 'GREVAN,TELEMETRY,SIMULATED,1';
			case 'FETC?':
				return this.fetch(rest);
			case 'SIM:ON': {
				const [waterVolumeL = NaN, startBar = NaN, lPerMin = NaN] = words.map(Number);
				if (!(waterVolumeL > 0 && startBar >= 0 && lPerMin >= 0) || name === '')
					return this.fail('-104,"Data type error"');
				this.channels.set(name, {
					waterVolumeL,
					startBar,
					lPerMin,
					since: Date.now(),
					takenL: 0,
					fault: 'none',
					frozenBar: startBar
				});
				return 'OK';
			}
			case 'SIM:RATE':
				return this.change(name, (channel) => (channel.lPerMin = Number(words[0])));
			case 'SIM:FAULT': {
				const fault = TELEMETRY_FAULTS.find((one) => one === words[0]);
				if (!fault) return this.fail('-224,"Illegal parameter value"');
				return this.change(name, (channel) => {
					channel.frozenBar = this.bar(channel);
					channel.fault = fault;
				});
			}
			case 'SIM:SPEED':
				return this.set(rest, 1, ([speed = 1]) => {
					for (const channel of this.channels.values()) this.settle(channel);
					this.speed = speed;
				});
			case 'SIM:OFF':
				this.channels.delete(name);
				return 'OK';
		}
	}

	private change(name: string, work: (channel: Channel) => void): string {
		const channel = this.channels.get(name);
		if (!channel) return this.fail('-221,"Settings conflict"');
		this.settle(channel);
		work(channel);
		return 'OK';
	}

	private settle(channel: Channel): void {
		channel.takenL = this.taken(channel);
		channel.since = Date.now();
	}

	private taken(channel: Channel): number {
		const minutes = ((Date.now() - channel.since) / 60_000) * this.speed;
		return channel.takenL + channel.lPerMin * minutes;
	}

	private bar(channel: Channel): number {
		const { waterVolumeL, startBar } = channel;
		const { freeLitres } = cylinderContent({ waterVolumeL, fromBar: startBar });
		const left = Math.max(0, freeLitres - this.taken(channel)) / waterVolumeL;
		// Empty, a cylinder still holds air at the pressure of the surroundings.
		return Math.max(0, pressureAt(AIR, (left + 1) * FREE_AIR_MOL_PER_L) - ATMOSPHERE_BAR);
	}

	/** What the channels named send, in order: a pressure, or nothing for one that is lost. */
	private fetch(rest: string): string {
		return rest
			.split(',')
			.map((name) => {
				const channel = this.channels.get(name);
				if (!channel || channel.fault === 'lost') return '';
				if (channel.fault === 'garbage') return '~9q';
				if (channel.fault === 'frozen') return channel.frozenBar.toFixed(0);
				const bar = this.bar(channel);
				return Math.max(0, channel.fault === 'jump' ? bar - JUMP_BAR : bar).toFixed(0);
			})
			.join(',');
	}
}
