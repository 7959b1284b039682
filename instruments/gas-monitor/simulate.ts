import { Chance } from '../chance.ts';

/** A simulated multi-gas monitor: the log that a day at one of the harbour's places would leave. */

export type Scenario = 'tank' | 'dryer' | 'shed';

interface Course {
	/** Value at rest. */
	base: number;
	/** Spread of the sensor's noise. */
	noise: number;
	/** Times (share of the log) at which something happens, how high and how many minutes it lasts. */
	events: readonly [at: number, height: number, minutes: number][];
	decimals: number;
}

const COURSES: Record<Scenario, Record<string, Course>> = {
	tank: {
		'O2 %': {
			base: 20.9,
			noise: 0.05,
			events: [
				[0.35, -3.6, 40],
				[0.7, -1.1, 15]
			],
			decimals: 1
		},
		'CO ppm': { base: 2, noise: 0.6, events: [[0.5, 9, 10]], decimals: 0 },
		'H2S ppm': {
			base: 0.4,
			noise: 0.2,
			events: [
				[0.35, 7, 25],
				[0.37, 11, 4]
			],
			decimals: 1
		},
		'LEL %': { base: 0, noise: 0.2, events: [[0.36, 4, 20]], decimals: 0 },
		'VOC ppm': { base: 3, noise: 0.8, events: [[0.4, 14, 30]], decimals: 1 }
	},
	dryer: {
		'O2 %': { base: 20.8, noise: 0.05, events: [], decimals: 1 },
		'CO ppm': { base: 6, noise: 1, events: [[0.2, 20, 12]], decimals: 0 },
		'H2S ppm': {
			base: 1.4,
			noise: 0.4,
			events: [
				[0.3, 4, 20],
				[0.62, 7, 8]
			],
			decimals: 1
		},
		'LEL %': { base: 0, noise: 0.1, events: [], decimals: 0 },
		'VOC ppm': { base: 5, noise: 1, events: [[0.3, 9, 25]], decimals: 1 }
	},
	shed: {
		'O2 %': { base: 20.9, noise: 0.05, events: [], decimals: 1 },
		'CO ppm': { base: 1, noise: 0.5, events: [], decimals: 0 },
		'H2S ppm': { base: 0, noise: 0.05, events: [], decimals: 1 },
		'LEL %': { base: 0.5, noise: 0.3, events: [[0.45, 2, 15]], decimals: 0 },
		'VOC ppm': {
			base: 45,
			noise: 6,
			events: [
				[0.15, 90, 45],
				[0.45, 210, 18],
				[0.75, 120, 30]
			],
			decimals: 1
		}
	}
};

export interface MonitorOptions {
	scenario: Scenario;
	/** Same seed, same log. */
	seed: number;
	/** First reading. */
	start: Date;
	minutes: number;
	everySeconds: number;
}

/** The log as CSV text, a heading and one line a reading. */
export function monitorLog({
	scenario,
	seed,
	start,
	minutes,
	everySeconds
}: MonitorOptions): string {
	const courses = Object.entries(COURSES[scenario]);
	const chance = new Chance(seed);
	const lines = [['time', ...courses.map(([name]) => name)].join(',')];
	const count = Math.floor((minutes * 60) / everySeconds);
	for (let i = 0; i <= count; i++) {
		const at = new Date(start.getTime() + i * everySeconds * 1000);
		const minute = (i * everySeconds) / 60;
		const cells = courses.map(([, course]) => reading(course, minute, minutes, chance));
		lines.push([at.toISOString(), ...cells].join(','));
	}
	return `${lines.join('\r\n')}\r\n`;
}

function reading(course: Course, minute: number, minutes: number, chance: Chance): string {
	const risen = course.events.reduce((sum, [share, height, lasts]) => {
		const past = minute - share * minutes;
		if (past < 0) return sum;
		// Up within the first fifth of its time, then a slow fall.
		const rise = Math.min(1, past / (lasts / 5));
		return sum + height * rise * Math.exp(-Math.max(0, past - lasts / 5) / (lasts / 2));
	}, course.base);
	const noisy = risen + (chance.next() + chance.next() + chance.next() - 1.5) * course.noise;
	return Math.max(0, noisy).toFixed(course.decimals);
}
