import { z } from 'zod';
import { EVENT_WORDS, NOTED_EVENTS } from '../plan/events.ts';
import { changeWords } from '../site/changes.ts';
import { action } from './action.ts';

const model = z.looseObject({
	name: z.string(),
	/** What differs, where it is known. */
	changes: z.array(z.object({ what: z.string(), from: z.string(), to: z.string() })).optional()
});

/** The register: items, models, sets. */
export const REGISTER_ACTIONS = {
	'register.filled': action({
		subject: 'site',
		payload: z.object({ items: z.number(), site: z.string() }),
		says: (p) => `Register filled with ${p.items} items`
	}),
	'register.imported': action({
		subject: 'import',
		payload: z.object({ items: z.number(), first: z.string(), last: z.string() }),
		says: (p) => `${p.items} items taken in from a table, ${p.first} to ${p.last}`
	}),
	'item.added': action({
		subject: 'item',
		payload: z.object({ tag: z.string(), model: z.string(), serial: z.string() }),
		says: (p) => `Taken into the register: ${p.model}`
	}),
	'item.moved': action({
		subject: 'item',
		payload: z.object({ from: z.string(), to: z.string() }),
		says: (p) => `Moved from ${p.from} to ${p.to}`
	}),
	'item.use-changed': action({
		subject: 'item',
		payload: z.object({ from: z.string(), to: z.string() }),
		says: (p) => `Use changed from ${p.from} to ${p.to}`
	}),
	'item.event-noted': action({
		subject: 'item',
		payload: z.object({ what: z.enum(NOTED_EVENTS), note: z.string() }),
		says: (p) => `Noted: ${EVENT_WORDS[p.what].happened}${p.note ? `. ${p.note}` : ''}`
	}),
	'set.moved': action({
		subject: 'item',
		payload: z.object({
			what: z.string(),
			from: z.string().nullable(),
			to: z.string().nullable()
		}),
		says: (p) => p.what
	}),
	'model.added': action({
		subject: 'model',
		payload: model,
		says: (p) => `Model added: ${p.name}`
	}),
	'model.changed': action({
		subject: 'model',
		payload: model,
		says: (p) => `Model changed: ${p.name}${p.changes?.length ? `: ${changeWords(p.changes)}` : ''}`
	}),
	'model.withdrawn': action({
		subject: 'model',
		payload: z.object({ model: z.string(), why: z.string() }),
		says: (p) => `Held: ${p.model} was withdrawn. ${p.why}`
	})
};
