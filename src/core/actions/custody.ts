import { z } from 'zod';
import { BATCH_STEPS, BROKEN_DECISIONS, DECISION_WORDS, STEP_WORDS } from '../care/batch.ts';
import { BATH_AGENTS } from '../care/wash-check.ts';
import { WHERE_WORDS, WHERES } from '../custody/custody.ts';
import { NOTICED, NOTICED_WORDS } from '../custody/noticed.ts';
import { action } from './action.ts';

const because = (text: string | undefined) => (text ? ` (${text})` : '');

/** Where things are and with whom: over the counter, back, through the wash. Wearers stand in it by number. */
export const CUSTODY_ACTIONS = {
	'item.brought': action({
		subject: 'item',
		payload: z.object({
			from: z.enum(WHERES),
			to: z.enum(WHERES),
			place: z.string().optional(),
			note: z.string().optional()
		}),
		says: (p) =>
			`Now ${WHERE_WORDS[p.to]}${p.place ? `, ${p.place}` : ''}, before ${WHERE_WORDS[p.from]}${because(p.note)}`
	}),
	'item.sealed': action({
		subject: 'item',
		payload: z.object({ number: z.string() }),
		says: (p) => `Sealed in its place, seal ${p.number}`
	}),
	'item.seal-broken': action({
		subject: 'item',
		payload: z.object({ number: z.string(), why: z.string() }),
		says: (p) => `Seal ${p.number} broken: ${p.why}`
	}),
	'item.handed-out': action({
		subject: 'item',
		payload: z.object({
			wearer: z.string(),
			task: z.string().nullable(),
			outcome: z.enum(['hand out', 'with conditions', 'do not']),
			reasons: z.array(z.string()),
			/** Why against the gate. */
			override: z.string().optional(),
			because: z.string().optional(),
			offline: z.boolean().optional()
		}),
		says: (p) =>
			`Handed out to wearer ${p.wearer}${p.task ? ` for ${p.task}` : ' as their own'}${
				p.override
					? `, AGAINST THE GATE: ${p.override.replace(/\.$/, '')}. It said: ${p.reasons.join(' ')}`
					: p.outcome === 'with conditions'
						? `, with conditions: ${p.reasons.join(' ')}`
						: ''
			}${p.offline ? ', by what the device knew' : ''}${because(p.because)}`
	}),
	'item.returned': action({
		subject: 'item',
		payload: z.object({
			wearer: z.string().nullable(),
			used: z.boolean(),
			minutes: z.number().nullable(),
			bar: z.number().nullable(),
			noticed: z.array(z.enum(NOTICED)),
			contaminatedWith: z.array(z.string()),
			next: z.enum(WHERES),
			note: z.string().optional(),
			because: z.string().optional()
		}),
		says: (p) =>
			`Back${p.wearer ? ` from wearer ${p.wearer}` : ''}${p.used ? '' : ', not used'}${
				p.minutes === null ? '' : `, worn ${p.minutes} min`
			}${p.bar === null ? '' : `, ${p.bar} bar left`}${
				p.noticed.length
					? `. Noticed: ${p.noticed.map((one) => NOTICED_WORDS[one].toLowerCase()).join(', ')}`
					: ''
			}${p.contaminatedWith.length ? `. On it: ${p.contaminatedWith.join(', ')}` : ''}. Now ${WHERE_WORDS[p.next]}${because(p.because)}`
	}),
	'item.wiped': action({
		subject: 'item',
		payload: z.object({ wipes: z.number() }),
		says: (p) => `Wiped, ${p.wipes} since its last full wash`
	}),
	'item.looked-over': action({
		subject: 'item',
		payload: z.object({ good: z.boolean(), looked: z.array(z.string()) }),
		says: (p) =>
			p.good
				? `Looked over after cleaning, put together: ${p.looked.join('; ')}`
				: 'Looked over after cleaning: not good'
	}),
	'batch.begun': action({
		subject: 'batch',
		payload: z.object({ number: z.number() }),
		says: (p) => `Wash batch ${p.number} begun`
	}),
	'batch.item': action({
		subject: 'batch',
		payload: z.object({ number: z.number(), in: z.boolean() }),
		says: (p) => `${p.in ? 'Into' : 'Out of'} wash batch ${p.number}`
	}),
	'batch.read': action({
		subject: 'batch',
		payload: z.object({ number: z.number(), celsius: z.number(), measured: z.boolean() }),
		says: (p) =>
			`Wash batch ${p.number}: bath at ${p.celsius} °C, ${p.measured ? 'by the thermometer' : 'typed in'}`,
		detail: true
	}),
	'batch.step': action({
		subject: 'batch',
		payload: z.object({
			number: z.number(),
			step: z.enum(BATCH_STEPS),
			agent: z.enum(BATH_AGENTS).optional(),
			dosePpm: z.number().nullable().optional()
		}),
		says: (p) =>
			`Wash batch ${p.number}: ${STEP_WORDS[p.step].toLowerCase()}${
				p.agent ? `, ${p.agent}${p.dosePpm ? ` ${Math.round(p.dosePpm)} ppm` : ''}` : ''
			}`,
		detail: true
	}),
	'batch.ended': action({
		subject: 'batch',
		payload: z.object({
			number: z.number(),
			outcome: z.enum(['pass', 'fail', 'given up']),
			items: z.number(),
			reasons: z.array(z.string()),
			decision: z.enum(BROKEN_DECISIONS).optional()
		}),
		says: (p) =>
			p.outcome === 'given up'
				? `Wash batch ${p.number} given up`
				: `Wash batch ${p.number} of ${p.items} ended: ${
						p.outcome === 'pass'
							? 'within every limit'
							: `a limit was broken. ${p.reasons.join(' ')} ${p.decision ? DECISION_WORDS[p.decision] : ''}`
					}`
	}),
	'stock.opened': action({
		subject: 'container',
		payload: z.object({ name: z.string(), agent: z.enum(BATH_AGENTS), leftMl: z.number() }),
		says: (p) => `Stock opened: ${p.name}, ${p.agent}, ${p.leftMl} mL`
	}),
	'stock.changed': action({
		subject: 'container',
		payload: z.object({ name: z.string(), what: z.string() }),
		says: (p) => `Stock ${p.name}: ${p.what}`
	})
};
