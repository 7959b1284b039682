// The simulated instruments in a process of their own: as many pressure benches as asked for, a bench for
// breathing-apparatus sets, a fill panel and a receiver for the gauges of wearers. Prints the ports they listen on as JSON. Ends with the process that started it.
import { BaBench } from './ba-bench/bench.ts';
import { FillPanel } from './fill-panel/panel.ts';
import { listen } from './line-server.ts';
import { PressureBench } from './pressure-bench/bench.ts';
import { TelemetryReceiver } from './telemetry/receiver.ts';

const benches = Number(process.argv[2] ?? 2);
const pressure = await Promise.all(
	Array.from({ length: benches }, () => listen(new PressureBench()))
);
const ba = await listen(new BaBench());
const panel = await listen(new FillPanel());
const telemetry = await listen(new TelemetryReceiver());
process.stdout.write(`${JSON.stringify({ pressure, ba, panel, telemetry })}\n`);
process.on('disconnect', () => process.exit(0));
