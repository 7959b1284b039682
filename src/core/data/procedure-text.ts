import type { Procedure, ReadingRule, Step } from '../inspection/procedure.ts';
import { textTable } from './text-table.ts';

type Readings = Readonly<Record<string, ReadingRule>>;

/** Reads steps from a table; `both` makes the same step on the left and the right. */
export function stepsOf(table: string, readings: Readings = {}): Step[] {
	return textTable(table).flatMap((row): Step[] => {
		const step: Step = {
			key: row.key ?? '',
			station: row.station ?? '',
			title: row.title ?? '',
			action: row.action ?? '',
			good: row.good ?? '',
			rejects: row.rejects?.split(' ') ?? [],
			kind: (row.kind as Step['kind'] | undefined) ?? 'look',
			why: row.why ?? '',
			...(row['if fitted'] === 'yes' ? { ifFitted: true } : {}),
			...(row['second person'] === 'yes' ? { secondPerson: true } : {}),
			...(readings[row.key ?? ''] ? { reading: readings[row.key ?? ''] } : {})
		};
		if (row.sides !== 'both') return [step];
		return ['left', 'right'].map((side) => ({
			...step,
			key: `${step.key}-${side}`,
			station: `${step.station}-${side}`,
			title: `${step.title}, ${side}`
		}));
	});
}

/** Reads a procedure from a table of its steps. */
export const procedure = (
	head: Omit<Procedure, 'version' | 'steps'>,
	table: string,
	readings: Readings = {}
): Procedure => ({ version: 1, ...head, steps: stepsOf(table, readings) });

/** Tables of one heading put together. */
export const joined = (...parts: string[]): string => {
	const [first = '', ...rest] = parts.map((part) => part.trim().split('\n'));
	return [
		...first,
		...rest.flatMap((lines) => (lines[0]?.startsWith('key |') ? lines.slice(1) : lines))
	].join('\n');
};

/** How a version differs from the one before it. */
export interface Amendment {
	version: number;
	/** Steps that follow a step of the earlier version, by its key; an empty key: before all of them. */
	after?: Readonly<Record<string, string>>;
	/** Steps that take the place of one of the earlier version, by its key. */
	instead?: Readonly<Record<string, string>>;
	readings?: Readings;
	/** Steps that may be answered "not fitted" from this version on. */
	absent?: readonly string[];
}

/** A version made from an earlier one. @throws RangeError where it names a step that the earlier one has not */
export function amended(before: Procedure, change: Amendment): Procedure {
	const { after = {}, instead = {}, readings, absent = [] } = change;
	const keys = new Set(before.steps.map(({ key }) => key));
	for (const key of [...Object.keys(after), ...Object.keys(instead)])
		if (key && !keys.has(key)) throw new RangeError(`${before.key} has no step "${key}".`);
	const read = (table: string | undefined) => (table ? stepsOf(table, readings) : []);
	const steps = [
		...read(after['']),
		...before.steps.flatMap((step) => [
			...(instead[step.key] ? read(instead[step.key]) : [step]),
			...read(after[step.key])
		])
	];
	for (const key of absent)
		if (!steps.some((step) => step.key === key))
			throw new RangeError(`${before.key} has no step "${key}".`);
	return {
		...before,
		version: change.version,
		steps: steps.map((step) => (absent.includes(step.key) ? { ...step, ifFitted: true } : step))
	};
}
