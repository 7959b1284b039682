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

/** Draws a chart in the type of the page, without motion, or draws the one on the canvas anew. Loaded only where a picture is shown. */
export function draw(canvas: HTMLCanvasElement, config: ChartConfiguration): Chart {
	Chart.defaults.font.family = getComputedStyle(document.body).fontFamily;
	Chart.defaults.font.size = 13;
	Chart.defaults.color = getComputedStyle(canvas).getPropertyValue('--soft').trim();
	const options = { ...config.options, animation: false, maintainAspectRatio: false } as const;
	const drawn = Chart.getChart(canvas);
	if (!drawn) return new Chart(canvas, { ...config, options });
	drawn.data = config.data;
	drawn.options = options;
	drawn.update('none');
	return drawn;
}
