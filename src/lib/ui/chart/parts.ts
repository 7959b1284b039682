import type { ChartColours } from './Chart.svelte';

interface LineLook {
	/** Pixels. */
	width?: number;
	/** Pixels drawn and left out; without it the line is unbroken. */
	dash?: number[];
}

/** A line through points, without marks on them. */
export const line = (
	label: string,
	data: { x: number; y: number }[],
	borderColor: string,
	{ width = 2, dash = [] }: LineLook = {}
) => ({
	label,
	data,
	showLine: true,
	borderColor,
	borderWidth: width,
	borderDash: dash,
	pointRadius: 0
});

/** An axis with its title and the rules of the page. */
export const axis = (c: ChartColours, text: string) => ({
	title: { display: true, text, color: c.soft },
	grid: { color: c.rule }
});
