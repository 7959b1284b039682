import { z } from 'zod';
import { action } from './action.ts';

/** Exams of the trainer: evidence for what somebody may do. Other drills leave no trace in the log. */
export const DRILL_ACTIONS = {
	'drill.exam-begun': action({
		subject: 'drill',
		payload: z.object({ procedure: z.string(), who: z.string(), beside: z.string() }),
		says: (p) => `${p.who} began an exam of the trainer beside ${p.beside}: ${p.procedure}`
	}),
	'drill.exam-ended': action({
		subject: 'drill',
		payload: z.object({
			procedure: z.string(),
			who: z.string(),
			points: z.number(),
			passed: z.boolean(),
			why: z.string()
		}),
		says: (p) =>
			`${p.who} ${p.passed ? 'passed' : 'did not pass'} an exam of the trainer: ${p.procedure}. ${p.why}`
	})
} as const;
