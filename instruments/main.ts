// The simulated instruments in a process of their own: as many pressure benches as asked for, a bench for
// breathing-apparatus sets, a fill panel, a receiver for the gauges of wearers, two particle counters and a thermometer in the bath. Listens on the
// ports given after the number of benches, in that order, or on free ones. Prints the ports as JSON. Ends with the
// process that started it.
import { endWithParent } from '../scripts/lib/parent.mjs';
import { BathThermometer } from './bath-thermometer/thermometer.ts';
import { BaBench } from './ba-bench/bench.ts';
import { FillPanel } from './fill-panel/panel.ts';
import { FitCounter } from './fit-counter/counter.ts';
import { listen } from './line-server.ts';
import { PressureBench } from './pressure-bench/bench.ts';
import { TelemetryReceiver } from './telemetry/receiver.ts';

const [benches = 2, ...ports] = process.argv.slice(2).map(Number);
const pressure = await Promise.all(
	Array.from({ length: benches }, (_, i) => listen(new PressureBench(), ports[i]))
);
const ba = await listen(new BaBench(), ports[benches]);
const panel = await listen(new FillPanel(), ports[benches + 1]);
const telemetry = await listen(new TelemetryReceiver(), ports[benches + 2]);
const fit = await Promise.all(
	[3, 4].map((after) => listen(new FitCounter(), ports[benches + after]))
);
const bath = await listen(new BathThermometer(), ports[benches + 5]);
process.stdout.write(`${JSON.stringify({ pressure, ba, panel, telemetry, fit, bath })}\n`);
endWithParent();
