import { describe, expect, it } from 'vitest';
import { monitorLog } from '../../../instruments/gas-monitor/simulate.ts';
import { InputError } from '../verdict.ts';
import { readMonitorLog, summariseLog } from './monitor-log.ts';

const at = (minute: number) => new Date(Date.UTC(2026, 0, 5, 8, minute)).toISOString();
const log = (rows: [minute: number, h2s: number][]) =>
	`time,H2S ppm\n${rows.map(([minute, value]) => `${at(minute)},${value}`).join('\n')}`;
const h2s = (text: string) => {
	const summary = summariseLog(readMonitorLog(text));
	const channel = summary.channels[0];
	if (!channel) throw new Error('no channel');
	return { summary, channel };
};
const message = (text: string) => {
	try {
		readMonitorLog(text);
	} catch (error) {
		expect(error).toBeInstanceOf(InputError);
		return (error as Error).message;
	}
	return 'accepted';
};

describe('a gas monitor’s log', () => {
	it('is averaged over time, each reading until the next', () => {
		// By hand: 2 ppm for 10 min, 8 ppm for 10 min, 0 for 20 min: (20 + 80 + 0) / 40 = 2.5.
		const rows: [number, number][] = Array.from({ length: 41 }, (_, m) => [
			m,
			m < 10 ? 2 : m < 20 ? 8 : 0
		]);
		const { channel } = h2s(log(rows));
		expect(channel.mean).toBeCloseTo(2.5, 9);
		// The worst 15 min are the last 5 at 2 ppm and all 10 at 8 ppm.
		expect(channel.highest15Min).toBeCloseTo((5 * 2 + 10 * 8) / 15, 9);
		expect([channel.lowest, channel.highest]).toEqual([0, 8]);
	});

	it('shorter than 15 minutes gives its mean as its worst quarter', () => {
		const { channel } = h2s(
			log([
				[0, 4],
				[5, 6],
				[10, 0]
			])
		);
		expect(channel.highest15Min).toBeCloseTo(5, 9);
	});

	it('counts a gap for nothing and says where it lies', () => {
		const rows: [number, number][] = [0, 1, 2, 3, 43, 44, 45].map((m) => [m, m === 3 ? 100 : 1]);
		const { summary, channel } = h2s(log(rows));
		expect(summary.gaps).toHaveLength(1);
		expect(channel.mean).toBeCloseTo(1, 9);
		expect(channel.highest).toBe(100);
	});

	it.each([
		[
			'a semicolon and a comma',
			'time;H2S\n2026-01-05 08:00:00;1,5\n2026-01-05 08:01:00;2,5',
			/accepted/
		],
		[
			'time running backwards',
			log([
				[5, 1],
				[4, 1]
			]),
			/Row 3: its time is not after/
		],
		['no time', 'time,H2S ppm\nnoon,1\nlater,2', /Row 2, time: “noon” is no time/],
		[
			'an impossible reading',
			'time,O2 %\n2026-01-05T08:00,209\n2026-01-05T08:01,20',
			/Oxygen of 209 %/
		],
		[
			'no known channel',
			'time,argon\n2026-01-05T08:00,1\n2026-01-05T08:01,1',
			/No channel was recognised/
		],
		['one reading', log([[0, 1]]), /two readings at least/],
		['no time column', 'H2S ppm\n1\n2', /lacks “time”/]
	])('with %s', (_, text, expected) => expect(message(text)).toMatch(expected));
});

describe('the simulated monitor', () => {
	const options = {
		seed: 7,
		start: new Date('2026-01-05T08:00:00Z'),
		minutes: 240,
		everySeconds: 30
	};
	it('writes a log that is read whole, the same for the same seed', () => {
		const text = monitorLog({ ...options, scenario: 'tank' });
		expect(monitorLog({ ...options, scenario: 'tank' })).toBe(text);
		expect(monitorLog({ ...options, scenario: 'tank', seed: 8 })).not.toBe(text);
		const summary = summariseLog(readMonitorLog(text));
		expect(summary.gaps).toEqual([]);
		expect(summary.channels.map((c) => c.channel)).toEqual([
			'oxygenPercent',
			'coPpm',
			'h2sPpm',
			'lelPercent',
			'vocPpm'
		]);
		const oxygen = summary.channels[0];
		expect(oxygen?.lowest).toBeLessThan(19.5);
	});
});
