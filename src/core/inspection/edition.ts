import type { Airway } from '../airway/airway.ts';
import { REJECT_CODES } from '../data/reject-codes.ts';
import { InputError } from '../verdict.ts';
import type { Procedure, Step } from './procedure.ts';

const KNOWN_CODES = new Set(REJECT_CODES.map((c) => c.code));
const KINDS = new Set(['look', 'feel', 'confirm', 'reading', 'hold']);
const WORDS = ['title', 'action', 'good', 'why'] as const;
const LONGEST_WORDS = 300;

/**
 * Checks that a procedure can be walked along an airway: every station has a step, every step a station, a reject
 * code that exists, and words for a newcomer. A donning list need not visit every station.
 * @throws InputError at the step and field at fault
 */
export function checkProcedure(procedure: Procedure, airway: Airway): void {
	if (!procedure.name.trim()) throw new InputError('name', 'Give the procedure a name.');
	const stations = new Set(airway.stations.map((s) => s.key));
	const seen = new Set<string>();
	procedure.steps.forEach((step, i) => checkStep(step, `steps.${i}`, stations, seen));
	const bare = airway.stations.filter((s) => !procedure.steps.some((p) => p.station === s.key));
	if (bare[0] && (procedure.purpose ?? 'inspection') === 'inspection')
		throw new InputError(
			'steps',
			`No step looks at ${bare.map((s) => s.name.toLowerCase()).join(', ')}. Every station needs one.`
		);
}

function checkStep(step: Step, path: string, stations: Set<string>, seen: Set<string>): void {
	const name = step.title.trim() || step.key;
	if (!/^[a-z0-9][a-z0-9-]{0,59}$/.test(step.key))
		throw new InputError(`${path}.key`, `${name}: the step has no usable key.`);
	if (seen.has(step.key))
		throw new InputError(`${path}.key`, `${name}: another step has the same key.`);
	seen.add(step.key);
	if (!stations.has(step.station))
		throw new InputError(`${path}.station`, `${name}: there is no such station on this airway.`);
	for (const field of WORDS) {
		if (!step[field].trim())
			throw new InputError(`${path}.${field}`, `${name}: “${LABELS[field]}” is empty.`);
		if (step[field].length > LONGEST_WORDS)
			throw new InputError(
				`${path}.${field}`,
				`${name}: “${LABELS[field]}” has more than ${LONGEST_WORDS} characters.`
			);
	}
	if (step.rejects.length === 0)
		throw new InputError(`${path}.rejects`, `${name}: give at least one code to reject it with.`);
	const unknown = step.rejects.find((code) => !KNOWN_CODES.has(code));
	if (unknown) throw new InputError(`${path}.rejects`, `${name}: there is no code ${unknown}.`);
	if (!KINDS.has(step.kind))
		throw new InputError(`${path}.kind`, `${name}: it cannot be answered by “${step.kind}”.`);
	if (step.reading && !step.rejects.includes(step.reading.code))
		throw new InputError(
			`${path}.rejects`,
			`${name}: its reading rejects with ${step.reading.code}; keep that code.`
		);
	if ((step.kind === 'reading' || step.kind === 'hold') !== Boolean(step.reading))
		throw new InputError(
			`${path}.kind`,
			`${name}: a reading is taken where one is judged, and only there.`
		);
}

const LABELS = {
	station: 'station',
	title: 'title',
	action: 'what to do',
	good: 'good looks like',
	why: 'why',
	rejects: 'reject codes',
	kind: 'answered by',
	ifFitted: 'if fitted',
	secondPerson: 'second person'
} as const;
type Field = keyof typeof LABELS;

/** One line of the difference between two versions. */
export interface EditionChange {
	what: 'added' | 'taken out' | 'moved' | 'changed';
	step: string;
	/** Of a changed field. */
	field?: string;
	from?: string;
	to?: string;
}

/** What a version changed against an earlier one, in the order of the later one, then what was taken out. */
export function editionChanges(before: Procedure, after: Procedure): EditionChange[] {
	const old = new Map(before.steps.map((s) => [s.key, s]));
	const kept = after.steps.filter((s) => old.has(s.key)).map((s) => s.key);
	const stayed = new Set(
		longestInOrder(
			kept,
			before.steps.map((s) => s.key)
		)
	);
	const changes = after.steps.flatMap((step): EditionChange[] => {
		const was = old.get(step.key);
		if (!was) return [{ what: 'added', step: step.title }];
		const lines: EditionChange[] = stayed.has(step.key)
			? []
			: [{ what: 'moved', step: step.title }];
		for (const field of Object.keys(LABELS) as Field[]) {
			const [from, to] = [word(was, field), word(step, field)];
			if (from !== to)
				lines.push({ what: 'changed', step: step.title, field: LABELS[field], from, to });
		}
		return lines;
	});
	const gone = before.steps.filter((s) => !after.steps.some((n) => n.key === s.key));
	return [...changes, ...gone.map((s) => ({ what: 'taken out' as const, step: s.title }))];
}

const word = (step: Step, field: Field): string => {
	const value = step[field];
	if (Array.isArray(value)) return value.join(', ');
	return typeof value === 'string' ? value : value ? 'yes' : 'no';
};

/** The most of a list that stands in the same order in another; what is left over was moved. */
function longestInOrder(list: readonly string[], order: readonly string[]): string[] {
	const at = list.map((key) => order.indexOf(key));
	const best: number[][] = [];
	at.forEach((rank, i) => {
		let longest: number[] = [];
		for (let j = 0; j < i; j++)
			if ((at[j] ?? 0) < rank && (best[j]?.length ?? 0) > longest.length) longest = best[j] ?? [];
		best.push([...longest, i]);
	});
	const most = best.reduce<number[]>((a, b) => (b.length > a.length ? b : a), []);
	return most.map((i) => list[i] ?? '');
}
