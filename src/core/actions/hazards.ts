import { z } from 'zod';
import { action } from './action.ts';
import { dayWords } from './words.ts';

const content = z.object({
	task: z.string(),
	placeId: z.string(),
	facts: z.unknown(),
	version: z.number(),
	outcome: z.string()
});
const substance = z.object({ name: z.string(), changed: z.array(z.unknown()), why: z.string() });

/** Hazard plans and substances. */
export const HAZARD_ACTIONS = {
	'plan.made': action({
		subject: 'plan',
		payload: content,
		says: (p) => `Hazard plan made: ${p.task}`
	}),
	'plan.changed': action({
		subject: 'plan',
		payload: content,
		says: (p) => `Hazard plan changed: ${p.task}, version ${p.version}`
	}),
	'plan.approved': action({
		subject: 'plan',
		signs: 'approve the plan',
		keeps: 'plan edition',
		payload: z.object({
			task: z.string(),
			edition: z.number(),
			version: z.number().optional(),
			outcome: z.string().optional(),
			reviewOn: z.string().optional(),
			expiresOn: z.string(),
			note: z.string().optional()
		}),
		says: (p) =>
			`Hazard plan approved: ${p.task}, edition ${p.edition}, until ${dayWords(p.expiresOn)}`
	}),
	'plan.flagged': action({
		subject: 'plan',
		payload: z.object({ pair: z.string(), text: z.string() }),
		says: (p) => `Hazard plan in question. ${p.text}`
	}),
	'plan.flag-cleared': action({
		subject: 'plan',
		signs: 'put the plan in force again',
		payload: z.object({ flag: z.string(), why: z.string() }),
		says: (p) => `Hazard plan looked into: ${p.why}`
	}),
	'substance.added': action({
		subject: 'substance',
		payload: substance,
		says: (p) => `Substance added: ${p.name}`
	}),
	'substance.corrected': action({
		subject: 'substance',
		payload: substance,
		says: (p) => `Substance corrected: ${p.name}. ${p.why}`
	}),
	'substances.imported': action({
		subject: 'import',
		payload: z.object({ rows: z.number(), leftOut: z.number(), why: z.string() }),
		says: (p) => `${p.rows} substances imported. ${p.why}`
	})
};
