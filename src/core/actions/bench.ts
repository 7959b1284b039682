import { z } from 'zod';
import { action } from './action.ts';

/** Tests on the bench. */
export const BENCH_ACTIONS = {
	'bench.started': action({
		subject: 'bench',
		payload: z.object({
			recipe: z.string(),
			version: z.number(),
			instrument: z.string(),
			bench: z.number()
		}),
		says: (p) => `Bench test started: ${p.recipe}`
	}),
	'bench.read-in': action({
		subject: 'bench',
		payload: z.object({ recipe: z.string(), version: z.number(), file: z.string() }),
		says: (p) => `Trace of a bench test read in from ${p.file}`
	}),
	'bench.judged': action({
		subject: 'bench',
		keeps: 'bench test',
		payload: z.object({
			recipe: z.string(),
			version: z.number().optional(),
			outcome: z.string(),
			leakPaPerMin: z.number(),
			why: z.string().optional()
		}),
		says: (p) => `Bench test ${p.recipe}: ${p.outcome}${p.why ? `. ${p.why}` : ''}`
	})
};
