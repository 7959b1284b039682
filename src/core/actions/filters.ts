import { z } from 'zod';
import { EARLY_REASONS, type DiscardReason } from '../filters/ledger.ts';
import { action } from './action.ts';
import { dayWords } from './words.ts';

const early = (why: string) => EARLY_REASONS[why as DiscardReason]?.words ?? why;
const layer = z.object({
	pair: z.string(),
	what: z.string(),
	lot: z.string(),
	quantity: z.number()
});
const filter = z.looseObject({ name: z.string() });

/** Opened pairs of filters and the store. */
export const FILTER_ACTIONS = {
	'filters.opened': action({
		subject: 'pair',
		payload: z.object({
			pair: z.string(),
			filter: z.string(),
			lot: z.string().optional(),
			plan: z.number().optional(),
			initials: z.string().optional(),
			changeOn: z.string(),
			changeAfterMin: z.number().nullable().optional(),
			/** It stays sealed in its pack. */
			sealed: z.boolean().optional(),
			discarded: z.object({ pair: z.string(), why: z.string() }).nullable().optional()
		}),
		says: (p) =>
			`Filters ${p.sealed ? 'fitted sealed' : 'opened'}: ${p.filter}${p.lot ? `, lot ${p.lot}` : ''}, as ${p.pair}, last day ${dayWords(p.changeOn)}`
	}),
	'filters.worn': action({
		subject: 'pair',
		payload: z.object({
			pair: z.string(),
			task: z.string(),
			minutes: z.number(),
			on: z.string(),
			lifeMin: z.number().nullable(),
			used: z.number().nullable()
		}),
		says: (p) =>
			`Filters ${p.pair} worn ${p.minutes} min for ${p.task}${p.used === null ? '' : `, ${Math.round(p.used * 100)} % of their life used`}`
	}),
	'filters.discarded': action({
		subject: 'pair',
		payload: z.object({ pair: z.string(), why: z.string() }),
		says: (p) => `Filters ${p.pair} taken out of use: ${early(p.why)}`
	}),
	'filter-layer.fitted': action({
		subject: 'pair',
		payload: layer,
		says: (p) => `${p.quantity} of ${p.what}, lot ${p.lot}, fitted over the filters ${p.pair}`
	}),
	'filter-layer.removed': action({
		subject: 'pair',
		payload: layer,
		says: (p) =>
			`${p.quantity} of ${p.what}, lot ${p.lot}, taken off the filters ${p.pair} and used up`
	}),
	'filters.recalled': action({
		subject: 'filter-lot',
		payload: z.object({ lot: z.string(), reason: z.string() }),
		says: (p) => `Held: lot ${p.lot} of its filters was recalled. ${p.reason}`
	}),
	'filter-lot.received': action({
		subject: 'filter-lot',
		payload: z.object({
			filter: z.string(),
			lot: z.string(),
			useBy: z.string(),
			quantity: z.number()
		}),
		says: (p) =>
			`${p.quantity} of ${p.filter}, lot ${p.lot}, use by ${dayWords(p.useBy)}, taken into the store`
	}),
	'filter-lot.recalled': action({
		subject: 'filter-lot',
		payload: z.object({ lot: z.string(), reason: z.string(), items: z.array(z.string()) }),
		says: (p) => `Lot ${p.lot} recalled: ${p.reason}`
	}),
	'filter-lot.disposed': action({
		subject: 'filter-lot',
		payload: z.object({ lot: z.string(), quantity: z.number(), why: z.string() }),
		says: (p) => `${p.quantity} of lot ${p.lot} disposed of: ${p.why}`
	}),
	'filter-model.added': action({
		subject: 'filter-model',
		payload: filter,
		says: (p) => `Filter added: ${p.name}`
	}),
	'filter-model.changed': action({
		subject: 'filter-model',
		payload: filter,
		says: (p) => `Filter changed: ${p.name}`
	})
};
