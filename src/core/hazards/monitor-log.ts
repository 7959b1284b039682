import { readNumber, readTable, type Column } from '../csv/table.ts';
import { InputError } from '../verdict.ts';

export type Channel = 'oxygenPercent' | 'coPpm' | 'h2sPpm' | 'lelPercent' | 'vocPpm';

/** One line of a gas monitor's log. */
export interface MonitorReading extends Partial<Record<Channel, number>> {
	/** Milliseconds since 1970. */
	at: number;
}

export const CHANNELS: Record<Channel, { name: string; unit: string; most: number }> = {
	oxygenPercent: { name: 'Oxygen', unit: '%', most: 100 },
	coPpm: { name: 'Carbon monoxide', unit: 'ppm', most: 1e6 },
	h2sPpm: { name: 'Hydrogen sulphide', unit: 'ppm', most: 1e6 },
	lelPercent: { name: 'Explosive gas', unit: '% LEL', most: 1000 },
	vocPpm: { name: 'Organic vapours', unit: 'ppm', most: 1e6 }
};

const channel = (key: Channel, name: string, also: string[]): Column<MonitorReading> => ({
	name,
	also,
	read(cell, into, table) {
		const value = readNumber(cell, table);
		const { most, unit, name: said } = CHANNELS[key];
		if (value < 0 || value > most) throw new RangeError(`${said} of ${value} ${unit} cannot be.`);
		into[key] = value;
	},
	write: (reading) => reading[key]
});

/** The columns of a log. */
export const MONITOR_COLUMNS: readonly Column<MonitorReading>[] = [
	{
		name: 'time',
		also: ['timestamp', 'date time'],
		required: true,
		read(cell, into) {
			const at = Date.parse(cell.replace(' ', 'T'));
			if (!Number.isFinite(at))
				throw new RangeError(`“${cell}” is no time such as 2026-11-24T08:15:00.`);
			into.at = at;
		},
		write: (reading) => new Date(reading.at).toISOString()
	},
	channel('oxygenPercent', 'O2 %', ['o2', 'oxygen', 'oxygen %']),
	channel('coPpm', 'CO ppm', ['co']),
	channel('h2sPpm', 'H2S ppm', ['h2s']),
	channel('lelPercent', 'LEL %', ['lel', 'ex', 'ex % lel']),
	channel('vocPpm', 'VOC ppm', ['voc', 'pid', 'pid ppm'])
];

/** What one channel did over a log. */
export interface ChannelSummary {
	channel: Channel;
	readings: number;
	/** Time-weighted over the log. */
	mean: number;
	lowest: number;
	highest: number;
	/** Highest time-weighted mean over any 15 minutes; over the whole log where it is shorter. */
	highest15Min: number;
}

export interface LogSummary {
	from: number;
	to: number;
	minutes: number;
	/** Pauses longer than the log's own rhythm, in which nothing is known. */
	gaps: { from: number; to: number }[];
	channels: ChannelSummary[];
}

const STEL_MS = 15 * 60_000;
/** A step so many times the usual one is a gap. Common practice. */
const GAP_STEPS = 5;

/**
 * Reads a log; readings come back in the order of time.
 * @throws InputError located by row when a line is bad, times run backwards or nothing was measured.
 */
export function readMonitorLog(text: string): MonitorReading[] {
	const read = readTable(text, MONITOR_COLUMNS, (): MonitorReading => ({ at: NaN }));
	const [fault] = read.faults;
	if (fault) throw new InputError('file', `Row ${fault.row}, ${fault.column}: ${fault.message}`);
	const readings = read.good.map((row) => row.record);
	readings.forEach((reading, i) => {
		const before = readings[i - 1];
		if (before && reading.at <= before.at)
			throw new InputError('file', `Row ${i + 2}: its time is not after the row before it.`);
	});
	if (readings.every((r) => Object.keys(r).length === 1))
		throw new InputError(
			'file',
			`No channel was recognised. Headings may be: ${MONITOR_COLUMNS.map((c) => c.name).join(', ')}.`
		);
	if (readings.length < 2) throw new InputError('file', 'A log needs two readings at least.');
	return readings;
}

/** What a log says, channel by channel. Each reading holds until the next; gaps count for nothing. */
export function summariseLog(readings: readonly MonitorReading[]): LogSummary {
	const first = readings[0];
	const last = readings.at(-1);
	if (!first || !last) throw new InputError('file', 'The log is empty.');
	const steps = readings.slice(1).map((r, i) => r.at - (readings[i]?.at ?? r.at));
	const usual = [...steps].sort((a, b) => a - b)[Math.floor(steps.length / 2)] ?? 0;
	const most = usual * GAP_STEPS;
	const gaps = steps.flatMap((step, i) =>
		step > most ? [{ from: readings[i]?.at ?? 0, to: readings[i + 1]?.at ?? 0 }] : []
	);
	return {
		from: first.at,
		to: last.at,
		minutes: (last.at - first.at) / 60_000,
		gaps,
		channels: (Object.keys(CHANNELS) as Channel[]).flatMap((key) => {
			const held = readings.flatMap((r) => {
				const value = r[key];
				return value === undefined ? [] : [{ at: r.at, value }];
			});
			return held.length ? [summarise(key, held, most || Infinity)] : [];
		})
	};
}

function summarise(
	key: Channel,
	held: readonly { at: number; value: number }[],
	mostStepMs: number
): ChannelSummary {
	const spans = held.slice(0, -1).map(({ at, value }, i) => {
		const step = (held[i + 1]?.at ?? at) - at;
		return { from: at, ms: step > mostStepMs ? 0 : step, value };
	});
	const values = held.map((r) => r.value);
	const mean = meanOf(spans) ?? values[0] ?? 0;
	return {
		channel: key,
		readings: held.length,
		mean,
		lowest: Math.min(...values),
		highest: Math.max(...values),
		highest15Min: highestMean(spans, STEL_MS) ?? mean
	};
}

interface Span {
	from: number;
	ms: number;
	value: number;
}

function meanOf(spans: readonly Span[]): number | undefined {
	const time = spans.reduce((sum, s) => sum + s.ms, 0);
	return time > 0 ? spans.reduce((sum, s) => sum + s.ms * s.value, 0) / time : undefined;
}

/** Highest mean over a window of known time, sliding from reading to reading; the last span is cut to fit. */
function highestMean(spans: readonly Span[], windowMs: number): number | undefined {
	let [end, time, sum] = [0, 0, 0];
	let highest: number | undefined;
	for (const start of spans) {
		while (end < spans.length && time < windowMs) {
			const s = spans[end++];
			time += s?.ms ?? 0;
			sum += (s?.ms ?? 0) * (s?.value ?? 0);
		}
		if (time < windowMs) break;
		const last = spans[end - 1];
		const mean = (sum - (time - windowMs) * (last?.value ?? 0)) / windowMs;
		if (highest === undefined || mean > highest) highest = mean;
		time -= start.ms;
		sum -= start.ms * start.value;
	}
	return highest ?? meanOf(spans);
}
