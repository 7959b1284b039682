import {
	Chart,
	Filler,
	Legend,
	LinearScale,
	LineController,
	LineElement,
	LogarithmicScale,
	PointElement,
	ScatterController,
	Tooltip,
	type ChartConfiguration
} from 'chart.js';

Chart.register(
	Filler,
	Legend,
	LinearScale,
	LineController,
	LineElement,
	LogarithmicScale,
	PointElement,
	ScatterController,
	Tooltip
);

/** Draws a chart in the type of the page, without motion. Loaded only where a picture is shown. */
export function draw(canvas: HTMLCanvasElement, config: ChartConfiguration): Chart {
	Chart.defaults.font.family = getComputedStyle(document.body).fontFamily;
	Chart.defaults.font.size = 13;
	Chart.defaults.color = getComputedStyle(canvas).getPropertyValue('--soft').trim();
	return new Chart(canvas, {
		...config,
		options: { ...config.options, animation: false, maintainAspectRatio: false }
	});
}
