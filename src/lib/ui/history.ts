import { rejectCode } from '$core/data/reject-codes';
import { repairOf } from '$core/data/repairs';

type Payload = Record<string, unknown>;
const text = (value: unknown) =>
	typeof value === 'string' || typeof value === 'number' ? String(value) : '';
const code = (value: unknown) => {
	try {
		return `${text(value)}, ${rejectCode(text(value)).name}`;
	} catch {
		return text(value);
	}
};
const repair = (value: unknown) => {
	try {
		return repairOf(text(value)).name.toLowerCase();
	} catch {
		return text(value);
	}
};

const SENTENCES: Record<string, (payload: Payload) => string> = {
	'register.filled': (p) => `Register filled with ${text(p.items)} items`,
	'inspection.started': () => 'Inspection started',
	'inspection.signed': (p) => `Inspection signed: ${text(p.outcome)}`,
	'defect.opened': (p) => `Fault found: ${code(p.code)}${p.note ? `. ${text(p.note)}` : ''}`,
	'defect.reported-again': (p) => `Fault reported again: ${code(p.code)}`,
	'defect.withdrawn': (p) => `Fault taken back before signing: ${code(p.code)}`,
	'repair.started': (p) => `Repair started: ${repair(p.repair)}`,
	'repair.done': (p) => `Repair done and proved: ${repair(p.repair)}`,
	'repair.released': (p) => `Released after ${repair(p.repair)}`,
	'item.retired': () => 'Taken out of use for good',
	'filters.opened': (p) =>
		`Filters opened: ${text(p.filter)}${p.lot ? `, lot ${text(p.lot)}` : ''}, as ${text(p.pair)}, last day ${text(p.changeOn)}`,
	'plan.made': (p) => `Hazard plan made: ${text(p.task)}`,
	'plan.changed': (p) => `Hazard plan changed: ${text(p.task)}, version ${text(p.version)}`
};

/** One entry of the audit log as a sentence. */
export const historySentence = (action: string, payload: Payload): string =>
	SENTENCES[action]?.(payload) ?? action;
