// The simulated gas monitor on the command line: npm run -s gas-monitor -- --scenario tank > log.csv
import { runTypeScript } from './lib/tsx.mjs';

await runTypeScript('instruments/gas-monitor/main.ts');
