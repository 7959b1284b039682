import { z } from 'zod';
import { action } from './action.ts';
import { codeWords, remark, repairWords } from './words.ts';

const found = z.object({
	station: z.string(),
	code: z.string(),
	severity: z.string().optional(),
	note: z.string().nullable().optional()
});
const part = z.object({ lotId: z.string(), quantity: z.number() });
const ended = z.object({ repair: z.string(), defects: z.array(z.string()) });

/** Faults and their repairs. */
export const FAULT_ACTIONS = {
	'defect.opened': action({
		subject: 'defect',
		payload: found,
		says: (p) => `Fault found: ${codeWords(p.code)}${remark(p.note)}`
	}),
	'defect.reported-again': action({
		subject: 'defect',
		payload: found,
		says: (p) => `Fault reported again: ${codeWords(p.code)}`
	}),
	'defect.photo': action({
		subject: 'defect',
		payload: z.object({ sha256: z.string(), width: z.number(), height: z.number() }),
		says: () => 'Picture of a fault taken'
	}),
	'defect.withdrawn': action({
		subject: 'defect',
		payload: found,
		says: (p) => `Fault taken back before signing: ${codeWords(p.code)}`
	}),
	'defect.report-withdrawn': action({
		subject: 'defect',
		payload: found,
		says: (p) => `One report of a fault taken back before signing: ${codeWords(p.code)}`
	}),
	'defect.taken-back': action({
		subject: 'defect',
		payload: z.object({
			station: z.string(),
			code: z.string(),
			why: z.string(),
			stays: z.boolean()
		}),
		says: (p) => `Report of a fault taken back: ${codeWords(p.code)}. ${p.why}`
	}),
	'defect.not-confirmed': action({
		subject: 'defect',
		payload: z.object({ station: z.string(), code: z.string(), why: z.string() }),
		says: (p) => `Fault looked for and not found: ${codeWords(p.code)}. ${p.why}`
	}),
	'parts.recalled': action({
		subject: 'recall',
		payload: z.object({
			part: z.string(),
			lot: z.string(),
			why: z.string(),
			held: z.number(),
			had: z.number(),
			fromStore: z.number()
		}),
		says: (p) =>
			`${p.part}, lot ${p.lot}, called back: ${p.held} held, ${p.had} had it once, ${p.fromStore} taken out of the store. ${p.why}`
	}),
	'cluster.alarm': action({
		subject: 'cluster',
		payload: z.object({ name: z.string(), faults: z.number(), expected: z.number() }),
		says: (p) =>
			`More faults than chance allows: ${p.name}, ${p.faults} where ${p.expected.toFixed(1)} were to be expected`
	}),
	'cluster.looked': action({
		subject: 'cluster',
		payload: z.object({ name: z.string(), found: z.string() }),
		says: (p) => `Looked into the faults of ${p.name}: ${p.found}`
	}),
	'recall.looked': action({
		subject: 'recall',
		payload: z.object({ found: z.string() }),
		says: (p) => `Looked into, as it had a recalled part once: ${p.found}`
	}),
	'repair.started': action({
		subject: 'job',
		payload: z.object({ repair: z.string(), defects: z.array(z.string()) }),
		says: (p) => `Repair started: ${repairWords(p.repair)}`
	}),
	'repair.done': action({
		subject: 'job',
		payload: z.object({
			repair: z.string(),
			proof: z.array(z.string()).readonly(),
			parts: z.array(part),
			note: z.string()
		}),
		says: (p) => `Repair done and proved: ${repairWords(p.repair)}`
	}),
	'repair.closed': action({
		subject: 'job',
		payload: ended,
		says: (p) => `Closed by its own check after ${repairWords(p.repair)}`
	}),
	'repair.released': action({
		subject: 'job',
		signs: 'release it',
		keeps: 'repair',
		payload: ended,
		says: (p) => `Released after ${repairWords(p.repair)}`
	}),
	'item.retired': action({
		subject: 'job',
		signs: 'take it out of use',
		keeps: 'repair',
		payload: ended,
		says: () => 'Taken out of use for good'
	}),
	'part.received': action({
		subject: 'part',
		payload: z.object({
			part: z.string(),
			lot: z.string(),
			quantity: z.number(),
			useBy: z.string().nullable()
		}),
		says: (p) => `${p.quantity} × ${p.part}, lot ${p.lot}, taken into the store`
	}),
	'part.level-set': action({
		subject: 'part',
		payload: z.object({ part: z.string(), from: z.number(), to: z.number() }),
		says: (p) => `${p.part}: bought below ${p.to}, before below ${p.from}`
	}),
	'part.counted': action({
		subject: 'part',
		payload: z.object({
			part: z.string(),
			lot: z.string(),
			from: z.number(),
			to: z.number(),
			note: z.string()
		}),
		says: (p) =>
			`${p.part}, lot ${p.lot}: counted ${p.to}, the record said ${p.from}${p.note ? `. ${p.note}` : ''}`
	}),
	'parts.counted': action({
		subject: 'part',
		payload: z.object({ lots: z.number(), differ: z.number(), note: z.string() }),
		says: (p) =>
			`Stock-take of parts: ${p.lots} lots counted, ${p.differ} differed${p.note ? `. ${p.note}` : ''}`
	}),
	'part.disposed': action({
		subject: 'part',
		payload: z.object({
			part: z.string(),
			lot: z.string(),
			quantity: z.number(),
			why: z.string()
		}),
		says: (p) => `${p.quantity} × ${p.part}, lot ${p.lot}, taken out of the store. ${p.why}`
	})
};
