import { z } from 'zod';
import { readable } from '../plan/calendar.ts';
import { action } from './action.ts';
import { codeWords } from './words.ts';

const answerValue = z.enum(['good', 'reject', 'not fitted', 'cleared']);
const readings = z.object({
	value: z.number().optional(),
	start: z.number().optional(),
	end: z.number().optional(),
	seconds: z.number().optional(),
	clock: z.literal('device').optional()
});

/** Inspections, their pictures and instruments, procedures, musters and seal checks. */
export const INSPECTION_ACTIONS = {
	'inspection.started': action({
		subject: 'run',
		payload: z.object({
			procedure: z.string(),
			version: z.number(),
			supersedes: z.string().optional(),
			reason: z.string().optional()
		}),
		says: (p) => `Inspection started${p.reason ? ` in place of a signed one: ${p.reason}` : ''}`,
		links: (p) =>
			p.supersedes ? [{ to: 'run', id: p.supersedes, words: 'the one that it replaces' }] : []
	}),
	'inspection.answered': action({
		subject: 'run',
		detail: true,
		payload: z.object({
			step: z.string(),
			value: answerValue,
			code: z.string().nullable(),
			note: z.string().nullable(),
			readings: readings.optional()
		}),
		says: (p) => `${p.step}: ${p.value}${p.code ? `, ${codeWords(p.code)}` : ''}`
	}),
	'inspection.assisted': action({
		subject: 'run',
		payload: z.object({ assistant: z.string(), account: z.string() }),
		says: (p) => `${p.assistant} named as the second person`
	}),
	'inspection.hold-started': action({
		subject: 'run',
		detail: true,
		payload: z.object({ step: z.string(), start: z.number(), seconds: z.number() }),
		says: (p) => `Hold of ${p.seconds} s started at ${p.start}`
	}),
	'inspection.photo': action({
		subject: 'run',
		payload: z.object({
			step: z.string(),
			sha256: z.string(),
			width: z.number(),
			height: z.number()
		}),
		says: () => 'Picture taken during an inspection'
	}),
	'inspection.signed': action({
		subject: 'run',
		signs: 'sign the inspection',
		keeps: 'inspection',
		payload: z.object({
			procedure: z.string(),
			version: z.number(),
			outcome: z.string(),
			answers: z
				.array(
					z.object({
						step: z.string(),
						value: answerValue,
						code: z.string().nullable(),
						note: z.string().nullable(),
						readings: readings.optional()
					})
				)
				.optional(),
			supersedes: z.string().optional(),
			reason: z.string().nullable().optional(),
			reasons: z.array(z.object({ rule: z.string(), text: z.string() })).optional(),
			paper: z.object({ day: z.string(), by: z.string() }).optional()
		}),
		says: (p) =>
			`Inspection signed: ${p.outcome}${p.paper ? `, typed in from paper of ${readable(p.paper.day)}, done by ${p.paper.by}` : ''}`,
		links: (p) =>
			p.supersedes ? [{ to: 'run', id: p.supersedes, words: 'the one that it replaces' }] : []
	}),
	'instrument.read': action({
		subject: 'run',
		payload: z.object({ step: z.string(), bar: z.number(), instrument: z.string() }),
		says: (p) => `${p.instrument} read for ${p.step}: ${p.bar} bar`
	}),
	'procedure.edition': action({
		subject: 'procedure',
		signs: 'put the procedure in force',
		payload: z.object({
			version: z.number(),
			from: z.number(),
			reason: z.string(),
			changes: z.array(z.string())
		}),
		says: (p) => `Procedure changed: ${p.reason}`
	}),
	'muster.started': action({
		subject: 'muster',
		payload: z.object({ place: z.string().nullable(), family: z.string().nullable() }),
		says: () => 'Muster begun'
	}),
	'muster.presented': action({
		subject: 'muster',
		payload: z.object({ expected: z.boolean() }),
		says: (p) => `Presented at a muster${p.expected ? '' : ', not expected there'}`
	}),
	'muster.exception': action({
		subject: 'muster',
		payload: z.object({ station: z.string(), code: z.string() }),
		says: (p) => `Noted at a muster: ${codeWords(p.code)}`
	}),
	'muster.closed': action({
		subject: 'muster',
		payload: z.object({ presented: z.number(), missing: z.array(z.string()) }),
		says: (p) => `Muster closed: ${p.presented} presented, ${p.missing.length} missing`
	}),
	'seal.checked': action({
		subject: 'seal',
		payload: z.object({ outcome: z.string(), attempts: z.number(), leaks: z.number() }),
		says: (p) =>
			`Seal check: ${p.outcome}, ${p.attempts} ${p.attempts === 1 ? 'attempt' : 'attempts'}`
	})
};
