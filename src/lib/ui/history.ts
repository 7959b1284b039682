import { EARLY_REASONS, type DiscardReason } from '$core/filters/ledger';
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

const early = (value: unknown) => EARLY_REASONS[text(value) as DiscardReason]?.words ?? text(value);

const SENTENCES: Record<string, (payload: Payload) => string> = {
	'register.filled': (p) => `Register filled with ${text(p.items)} items`,
	'inspection.started': () => 'Inspection started',
	'instrument.read': (p) => `${text(p.instrument)} read for ${text(p.step)}: ${text(p.bar)} bar`,
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
	'filters.worn': (p) =>
		`Filters ${text(p.pair)} worn ${text(p.minutes)} min for ${text(p.task)}${typeof p.used === 'number' ? `, ${Math.round(p.used * 100)} % of their life used` : ''}`,
	'filters.discarded': (p) => `Filters ${text(p.pair)} taken out of use: ${early(p.why)}`,
	'filters.recalled': (p) =>
		`Held: lot ${text(p.lot)} of its filters was recalled. ${text(p.reason)}`,
	'filter-lot.received': (p) =>
		`${text(p.quantity)} of ${text(p.filter)}, lot ${text(p.lot)}, taken into the store`,
	'filter-lot.recalled': (p) => `Lot ${text(p.lot)} recalled: ${text(p.reason)}`,
	'filter-lot.disposed': (p) =>
		`${text(p.quantity)} of lot ${text(p.lot)} disposed of: ${text(p.why)}`,
	'filter-model.added': (p) => `Filter added: ${text(p.name)}`,
	'filter-model.changed': (p) => `Filter changed: ${text(p.name)}`,
	'plan.approved': (p) =>
		`Hazard plan approved: ${text(p.task)}, edition ${text(p.edition)}, until ${text(p.expiresOn)}`,
	'plan.flagged': (p) => `Hazard plan in question. ${text(p.text)}`,
	'plan.flag-cleared': (p) => `Hazard plan looked into: ${text(p.why)}`,
	'substance.added': (p) => `Substance added: ${text(p.name)}`,
	'substance.corrected': (p) => `Substance corrected: ${text(p.name)}. ${text(p.why)}`,
	'substances.imported': (p) => `${text(p.rows)} substances imported. ${text(p.why)}`,
	'inspection.photo': () => 'Picture taken during an inspection',
	'procedure.edition': (p) => `Procedure changed: ${text(p.reason)}`,
	'item.added': (p) => `Taken into the register: ${text(p.model)}`,
	'item.moved': (p) => `Moved from ${text(p.from)} to ${text(p.to)}`,
	'register.imported': (p) => `${text(p.items)} items taken in from a table`,
	'set.moved': (p) => text(p.what),
	'model.added': (p) => `Model added: ${text(p.name)}`,
	'model.changed': (p) => `Model changed: ${text(p.name)}`,
	'model.withdrawn': (p) => `Held: ${text(p.model)} was withdrawn. ${text(p.why)}`,
	'muster.started': () => 'Muster begun',
	'muster.presented': (p) =>
		`Presented at a muster${p.expected === false ? ', not expected there' : ''}`,
	'muster.closed': (p) => `Muster closed: ${text(p.presented)} presented`,
	'seal.checked': (p) => `Seal check: ${text(p.outcome)}, ${text(p.attempts)} attempts`,
	'bench.started': (p) => `Bench test started: ${text(p.recipe)}`,
	'bench.judged': (p) => `Bench test ${text(p.recipe)}: ${text(p.outcome)}. ${text(p.why)}`,
	'cylinder.entered': (p) => `Stamp entered: ${text(p.waterVolumeL)} L, ${text(p.ratedBar)} bar`,
	'cylinder.corrected': (p) =>
		`Stamp corrected: ${text(p.waterVolumeL)} L, ${text(p.ratedBar)} bar`,
	'cylinder.tested': (p) =>
		`Periodic test of ${text(p.testedOn)} ${p.passed ? 'passed' : 'failed'}${p.stamp ? `, stamp ${text(p.stamp)}` : ''}`,
	'cylinder.pressure': (p) =>
		p.bar === null
			? 'Nobody knows what is left in it'
			: `${text(p.bar)} bar${p.entered ? `, written as ${text(p.entered)}` : ''}, ${text(p.why)}`,
	'cylinder.looked-inside': () => 'Looked at inside',
	'cylinder.brought': (p) => `${text(p.tag)} brought from ${text(p.from)} to ${text(p.to)}`,
	'fill.started': (p) =>
		`Looked at and put on the panel with ${text(p.startBar)} bar, batch ${text(p.batch)}`,
	'fill.bank': (p) => `Bank ${text(p.bank)} opened to it`,
	'fill.pumped': (p) => `Bank ${text(p.bank)} pumped up`,
	'fill.ended': (p) =>
		`Filled to ${text(p.endBar)} bar at ${text(p.endC)} °C, ${text(p.settledBar)} bar when cool: ${text(p.outcome)}`,
	'air-source.added': (p) => `Source of air added: ${text(p.name)}`,
	'air.tested': (p) => `Air of ${text(p.source)} tested: ${text(p.outcome)}`,
	'air.failed': (p) => `Held: the air of ${text(p.source)} failed its test`,
	'air.worked-on': (p) => `${text(p.source)} worked on: ${text(p.what)}`,
	'rig.changed': () => 'Written down how the rig is put together',
	'rig.sorbent-changed': (p) => `Sorbent and filters changed on ${text(p.on)}. ${text(p.note)}`,
	'rig.alarm-tested': (p) =>
		`Alarm tested on ${text(p.on)}: ${p.passed ? 'sounds' : 'failed'}. ${text(p.note)}`,
	'entry.team-in': (p) => `Team sent in: ${text(p.task)}`,
	'entry.worn': (p) => `Worn by ${text(p.wearer)}: ${text(p.task)}`,
	'entry.pressure': (p) =>
		`${text(p.wearer)} told ${text(p.bar)} bar${p.entered ? `, as ${text(p.entered)}` : ''}`,
	'entry.turned': (p) => `Team turned: ${text(p.task)}`,
	'entry.alarm': (p) => `Alarm for ${text(p.wearer)}: ${text(p.alarm)}`,
	'entry.alarm-seen': (p) => `Alarm for ${text(p.wearer)} seen: ${text(p.alarm)}`,
	'entry.out': (p) =>
		`${text(p.wearer)} out after ${text(p.minutes)} min with ${text(p.endBar)} bar${typeof p.lPerMin === 'number' ? `, ${p.lPerMin} L/min` : ''}`,
	'plan.made': (p) => `Hazard plan made: ${text(p.task)}`,
	'plan.changed': (p) => `Hazard plan changed: ${text(p.task)}, version ${text(p.version)}`
};

/** One entry of the audit log as a sentence. */
export const historySentence = (action: string, payload: Payload): string =>
	SENTENCES[action]?.(payload) ?? action;
