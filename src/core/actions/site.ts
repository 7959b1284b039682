import { z } from 'zod';
import { changeWords } from '../site/changes.ts';
import { action } from './action.ts';
import { remark } from './words.ts';

const changes = z.array(z.object({ what: z.string(), from: z.string(), to: z.string() }));
const named = z.object({ name: z.string() });
const changed = z.object({ name: z.string(), changes });

/** What a site chose, its places and the houses that it sends things to: each change with old and new. */
export const SITE_ACTIONS = {
	'site.begun': action({
		subject: 'site',
		payload: z.object({ by: z.string() }),
		says: (p) => `Set-up begun with the one-time code; the first account is of ${p.by}`
	}),
	'site.set-up': action({
		subject: 'site',
		payload: z.object({ lacks: z.array(z.string()), twoStep: z.boolean() }),
		says: (p) =>
			`Set-up ended, ${p.twoStep ? 'with' : 'without'} two-step sign-in for admins${p.lacks.length ? `; still to do: ${p.lacks.join(', ').toLowerCase()}` : ''}`
	}),
	'site.copied': action({
		subject: 'site',
		payload: z.object({
			places: z.number(),
			models: z.number(),
			rules: z.number(),
			testHouses: z.number()
		}),
		says: (p) =>
			`Started with the settings of another site: ${p.places} places, ${p.models} models, ${p.rules} rules, ${p.testHouses} test houses`
	}),
	'site.changed': action({
		subject: 'site',
		payload: z.object({ changes }),
		signs: 'change the settings of the site',
		says: (p) => `Settings changed: ${changeWords(p.changes)}`
	}),
	'rule.made': action({
		subject: 'rule',
		payload: z.object({ rule: z.string(), reason: z.string(), before: z.string().nullable() }),
		signs: 'change the rules of the site',
		says: (p) =>
			`Rule of intervals ${p.before ? `changed from: ${p.before}; to` : 'made'}: ${p.rule}${remark(p.reason)}`
	}),
	'rule.ended': action({
		subject: 'rule',
		payload: z.object({ rule: z.string(), reason: z.string() }),
		signs: 'change the rules of the site',
		says: (p) => `Rule of intervals ended: ${p.rule}${remark(p.reason)}`
	}),
	'place.added': action({
		subject: 'place',
		payload: named,
		says: (p) => `Place added: ${p.name}`
	}),
	'place.changed': action({
		subject: 'place',
		payload: changed,
		says: (p) => `${p.name} changed: ${changeWords(p.changes)}`
	}),
	'place.closed': action({
		subject: 'place',
		payload: named,
		says: (p) => `Place closed: ${p.name}`
	}),
	'test-house.added': action({
		subject: 'test-house',
		payload: named,
		says: (p) => `Test house added: ${p.name}`
	}),
	'test-house.changed': action({
		subject: 'test-house',
		payload: changed,
		says: (p) => `${p.name} changed: ${changeWords(p.changes)}`
	}),
	'records.taken-in': action({
		subject: 'import',
		payload: z.object({ kind: z.string(), rows: z.number(), sha256: z.string() }),
		says: (p) => `A table of ${p.kind.replace('-', ' ')} taken in: ${p.rows} rows`
	}),
	'store.imported': action({
		subject: 'import',
		payload: z.object({ kind: z.string(), lots: z.number(), models: z.number() }),
		says: (p) =>
			`${p.lots} lots of ${p.kind} taken in from a table${p.models ? `, with ${p.models} that were not known` : ''}`
	}),
	'table.taken-back': action({
		subject: 'import',
		payload: z.object({ kind: z.string(), rows: z.number() }),
		says: (p) => `Table of ${p.kind} taken back, ${p.rows} rows`
	})
};
