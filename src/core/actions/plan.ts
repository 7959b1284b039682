import { z } from 'zod';
import { readable } from '../plan/calendar.ts';
import { action } from './action.ts';

const WAYS = {
	anew: 'made anew',
	moved: 'changed where it had to be',
	evening: 'renewed in the evening'
};

/** The plan of the work: what is put where, and by whom. */
export const PLAN_ACTIONS = {
	'work-plan.kept': action({
		subject: 'work-plan',
		payload: z.object({
			number: z.number(),
			way: z.enum(['anew', 'moved', 'evening']),
			jobs: z.number(),
			changes: z.number(),
			/** Floors that it keeps lower, in words. */
			floors: z.array(z.string()).default([]),
			peakMin: z.number(),
			boundMin: z.number()
		}),
		says: (p) =>
			`Plan ${p.number} ${WAYS[p.way]}: ${p.jobs} jobs, ${p.changes} changed, highest day ${Math.round(p.peakMin)} min${p.floors.length ? `. Floors kept lower: ${p.floors.join('; ')}` : ''}`
	}),
	'work-plan.pinned': action({
		subject: 'work-plan',
		payload: z.object({ tag: z.string(), title: z.string(), day: z.string(), person: z.string() }),
		says: (p) => `${p.tag}, ${p.title}: pinned to ${readable(p.day)}, ${p.person}`
	}),
	'work-plan.unpinned': action({
		subject: 'work-plan',
		payload: z.object({ tag: z.string(), title: z.string() }),
		says: (p) => `${p.tag}, ${p.title}: no longer pinned`
	}),
	'work-plan.day-barred': action({
		subject: 'work-plan',
		payload: z.object({ day: z.string(), person: z.string().nullable(), why: z.string() }),
		says: (p) =>
			`${readable(p.day)} barred for ${p.person ?? 'everybody'}${p.why ? `: ${p.why}` : ''}`
	}),
	'work-plan.day-opened': action({
		subject: 'work-plan',
		payload: z.object({ day: z.string(), person: z.string().nullable() }),
		says: (p) => `${readable(p.day)} open again for ${p.person ?? 'everybody'}`
	}),
	'work-hours.set': action({
		subject: 'work-plan',
		payload: z.object({ person: z.string(), minutes: z.array(z.number()) }),
		says: (p) => `Hours of ${p.person}, Monday to Sunday: ${p.minutes.join(', ')} min`
	}),
	'plan-feed.made': action({
		subject: 'work-plan',
		payload: z.object({ of: z.string() }),
		says: (p) => `Calendar of ${p.of} made, to be read with a token`
	}),
	'plan-feed.revoked': action({
		subject: 'work-plan',
		payload: z.object({ of: z.string() }),
		says: (p) => `Calendar of ${p.of} revoked`
	})
};
