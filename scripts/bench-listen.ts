// Figures of the ear for the warning whistle: how many are found, how near, and how often it hears one where none is.
import { WhistleEar } from '../src/core/listen/whistle.ts';
import { letDownSound } from '../instruments/sounds/let-down.ts';

const RUNS = Number(process.env.BENCH_WHISTLES ?? 1000);
const LEVELS = [24, 18, 12, 6, 3, 0, -3, -6];
const NEAR_S = 0.3;

interface Row {
	runs: number;
	found: number;
	near: number;
	errors: number[];
	falseOnes: number;
}
const empty = (): Row => ({ runs: 0, found: 0, near: 0, errors: [], falseOnes: 0 });
const began = performance.now();
let seconds = 0;

function heardIn(seed: number, aboveNoiseDb: number | null) {
	const sound = letDownSound({ seed, aboveNoiseDb });
	const ear = new WhistleEar(sound.sampleRate);
	seconds += sound.samples.length / sound.sampleRate;
	return { sound, heard: ear.hear(sound.samples) };
}

const rows = new Map<number, Row>(LEVELS.map((level) => [level, empty()]));
for (let i = 0; i < RUNS; i++) {
	const level = LEVELS[i % LEVELS.length] ?? 0;
	const row = rows.get(level) ?? empty();
	const { sound, heard } = heardIn(1000 + i, level);
	row.runs++;
	const [first] = heard;
	if (!first || sound.onsetS === null) continue;
	const error = first.onsetS - sound.onsetS;
	row.found++;
	row.errors.push(error);
	if (Math.abs(error) <= NEAR_S) row.near++;
	if (error < -NEAR_S) row.falseOnes++;
}
let alarms = 0;
for (let i = 0; i < RUNS; i++) if (heardIn(500_000 + i, null).heard.length) alarms++;

console.log(`Warning whistles in workshop noise, ${RUNS} seeded let-downs`);
console.log(
	'dB over noise   let-downs   found   within 0.3 s   too early   middle error   worst tenth'
);
for (const [level, { runs, found, near, errors, falseOnes }] of rows) {
	const sizes = errors.map(Math.abs).sort((a, b) => a - b);
	const at = (share: number) => sizes[Math.floor(share * (sizes.length - 1))]?.toFixed(3) ?? '-';
	console.log(
		`${String(level).padStart(13)}   ${String(runs).padStart(9)}   ${((100 * found) / runs).toFixed(1).padStart(5)}   ${((100 * near) / runs).toFixed(1).padStart(12)}   ${String(falseOnes).padStart(9)}   ${at(0.5).padStart(12)}   ${at(0.9).padStart(11)}`
	);
}
console.log(`Heard where there is none: ${alarms} of ${RUNS} recordings`);
const spent = (performance.now() - began) / 1000;
console.log(`${seconds.toFixed(0)} s of sound made and heard in ${spent.toFixed(0)} s`);
