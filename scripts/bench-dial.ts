// Figures of the eye for gauges: how many pictures are read, how near, and which are refused.
import { readDial, type DialTrace } from '../src/core/dial/read.ts';
import { type DialKind, dialShot } from '../instruments/pictures/dial-shots.ts';

const RUNS = Number(process.env.BENCH_DIALS ?? 1000);
/** How the pictures are shared out, in hundredths. */
const KINDS: readonly [DialKind, number][] = [
	['plain', 40],
	['hard', 30],
	['glare', 12],
	['cracked', 8],
	['other gauge', 5],
	['reversed', 5]
];
/** Wanted: so near, as a share of the scale. */
const NEAR = 0.02;

interface Row {
	pictures: number;
	taken: number;
	near: number;
	covered: number;
	errors: number[];
	refused: Map<string, number>;
}
const rows = new Map<DialKind, Row>(
	KINDS.map(([kind]) => [
		kind,
		{ pictures: 0, taken: 0, near: 0, covered: 0, errors: [], refused: new Map() }
	])
);
const kindOf = (i: number): DialKind => {
	let left = i % 100;
	for (const [kind, share] of KINDS) {
		if (left < share) return kind;
		left -= share;
	}
	return 'plain';
};
let spent = 0;
for (let i = 0; i < RUNS; i++) {
	const kind = kindOf(i * 37);
	const row = rows.get(kind);
	if (!row) continue;
	const { picture, dial, guess, bar, shot } = await dialShot(20_000 + i, kind);
	const trace: DialTrace = {};
	const began = performance.now();
	const said = readDial(picture, dial, guess, trace);
	spent += performance.now() - began;
	row.pictures++;
	if ('refused' in said) {
		row.refused.set(said.refused, (row.refused.get(said.refused) ?? 0) + 1);
		continue;
	}
	const span = dial.to.bar - dial.from.bar;
	const error = (said.bar - bar) / span;
	row.taken++;
	row.errors.push(Math.abs(error));
	if (Math.abs(error) <= NEAR) row.near++;
	if (Math.abs(said.bar - bar) <= said.plusMinusBar) row.covered++;
	if (process.env.BENCH_TELL && Math.abs(error) > NEAR)
		console.log(
			20_000 + i,
			kind,
			bar.toFixed(1),
			said.bar.toFixed(1),
			JSON.stringify(
				{ ...trace, tilt: shot.tiltDeg, blur: shot.blurPx, side: shot.frame.width },
				(_, v: unknown) => (typeof v === 'number' ? Number(v.toFixed(3)) : v)
			)
		);
}
console.log(`Gauges read off ${RUNS} seeded pictures`);
console.log(
	'kind          pictures   taken   within 2 %   within its own ±   middle error   worst   refused'
);
let [taken, near] = [0, 0];
for (const [kind, row] of rows) {
	const sorted = [...row.errors].sort((a, b) => a - b);
	const percent = (share: number | undefined) =>
		share === undefined ? '-' : `${(100 * share).toFixed(2)} %`;
	taken += row.taken;
	near += row.near;
	const refused = [...row.refused].map(([why, count]) => `${why} ${count}`).join(', ');
	console.log(
		`${kind.padEnd(12)} ${String(row.pictures).padStart(9)} ${String(row.taken).padStart(7)} ${String(row.near).padStart(12)} ${String(row.covered).padStart(18)} ${percent(sorted[sorted.length >> 1]).padStart(14)} ${percent(sorted.at(-1)).padStart(7)}   ${refused}`
	);
}
console.log(
	`Of ${taken} taken, ${near} within 2 % of the scale: ${((100 * near) / Math.max(1, taken)).toFixed(2)} %`
);
console.log(`Reading one picture ${(spent / RUNS).toFixed(1)} ms`);
