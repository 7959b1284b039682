// docs/decisions.md: npm run decisions
import { runTypeScript } from './lib/tsx.mjs';

await runTypeScript('scripts/decisions-write.ts');
