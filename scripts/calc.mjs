// The calculation interface on the command line: npm run -s calc -- OPERATION [--lines] < input.json
import { runTypeScript } from './lib/tsx.mjs';

await runTypeScript('scripts/calc-run.ts');
