import { mark, type Mark, path, words } from './mark.ts';

const [LEFT, RIGHT, TOP, FOOT] = [30, 234, 8, 140];

/**
 * A pressure over time as strokes, with the limit as a dashed line.
 * @param samples s and Pa
 * @param limitPa what may not be passed
 */
export function pressureMarks(
	samples: readonly { s: number; pa: number }[],
	limitPa: number
): Mark[] {
	const last = samples.at(-1)?.s ?? 1;
	const values = [...samples.map(({ pa }) => pa), limitPa];
	const spread = Math.max(...values) - Math.min(...values) || 1;
	const [low, high] = [Math.min(...values) - spread * 0.1, Math.max(...values) + spread * 0.1];
	const y = (pa: number) => FOOT - ((pa - low) / (high - low)) * (FOOT - TOP);
	// More points than the paper has dots say nothing more.
	const every = Math.max(1, Math.floor(samples.length / 400));
	const points = samples
		.filter((_, i) => i % every === 0 || i === samples.length - 1)
		.map(({ s, pa }): [number, number] => [LEFT + (s / (last || 1)) * (RIGHT - LEFT), y(pa)]);
	return [
		mark('thin', path([LEFT, TOP], [LEFT, FOOT], [RIGHT, FOOT])),
		mark('dash', path([LEFT, y(limitPa)], [RIGHT, y(limitPa)])),
		...(points.length > 1 ? [mark('line', path(...points))] : []),
		words(`${Math.round(samples[0]?.pa ?? 0)}`, 15, y(samples[0]?.pa ?? 0) + 3, 7),
		words(`${Math.round(limitPa)}`, 15, y(limitPa) + 3, 7),
		words('Pa', 15, FOOT + 2, 7),
		words(`${Math.round(last)} s`, RIGHT - 8, FOOT + 11, 7)
	];
}
