// The simulated instruments in a process of their own: as many pressure benches as asked for, and a bench for
// breathing-apparatus sets. Prints the ports they listen on as JSON. Ends with the process that started it.
import { BaBench } from './ba-bench/bench.ts';
import { listen } from './line-server.ts';
import { PressureBench } from './pressure-bench/bench.ts';

const benches = Number(process.argv[2] ?? 2);
const pressure = await Promise.all(
	Array.from({ length: benches }, () => listen(new PressureBench()))
);
const ba = await listen(new BaBench());
process.stdout.write(`${JSON.stringify({ pressure, ba })}\n`);
process.on('disconnect', () => process.exit(0));
