import {
	readStoreTable,
	type StoreHeld,
	type StoreTable
} from '../../../core/filters/store-table.ts';
import type { TableFile } from '../../../core/csv/ways.ts';
import { calculate, type CalcResult } from '../../../core/calc/registry.ts';
import { type ItemTable, readItemTable, type Register } from '../../../core/register/import.ts';
import { planSite, type SitePlan } from '../../../core/plan/plan-site.ts';
import type { SitePlanFacts } from '../../../core/plan/site-problem.ts';
import { readSubstanceTable, type SubstanceTable } from '../../../core/substances/import.ts';
import { readWearerTable, type WearerTable } from '../../../core/people/wearer-table.ts';
import { type PartRow, type PartTable, readPartTable } from '../../../core/service/parts-table.ts';
import { type ClusterFacts, type ClusterSigns, clusterSigns } from '../../../core/teach/cluster.ts';
import { InputError } from '../../../core/verdict.ts';

/** What is worked out on a thread of its own, by name. */
export interface HeavyTasks {
	calculate: { in: { name: string; input: unknown }; out: CalcResult };
	'plan site': { in: { facts: SitePlanFacts; warm: boolean }; out: SitePlan };
	clusters: { in: ClusterFacts; out: ClusterSigns[] };
	'read items': {
		in: { file: TableFile; register: Register };
		out: Omit<ItemTable, 'items'> & InParts;
	};
	'read filters': { in: { file: TableFile; held: StoreHeld; asOf: string }; out: StoreTable };
	'read parts': {
		in: { file: TableFile; held: readonly Pick<PartRow, 'part' | 'lot'>[]; asOf: string };
		out: PartTable;
	};
	'read wearers': {
		in: { file: TableFile; held: { numbers: readonly string[]; places: readonly string[] } };
		out: WearerTable;
	};
	'read substances': {
		in: TableFile;
		/** Beside the substances what is said of each, in parts too. */
		out: Omit<SubstanceTable, 'good'> & InParts & { taken: string[] };
	};
}

/**
 * Many rows as they cross between threads: as text, a part at a time, so that whoever takes them is not held up while
 * all of them are made anew at once.
 */
export interface InParts {
	count: number;
	parts: string[];
}

/** What is said of a substance before it is taken. */
export interface SubstanceTaken {
	row: number;
	key: string;
	name: string;
	disagreements: SubstanceTable['good'][number]['disagreements'];
}

/** Rows of one part, and of one statement that writes them. */
const PART = 500;
function inParts(rows: readonly unknown[]): InParts {
	const parts: string[] = [];
	for (let i = 0; i < rows.length; i += PART) parts.push(JSON.stringify(rows.slice(i, i + PART)));
	return { count: rows.length, parts };
}
export type HeavyName = keyof HeavyTasks;

const TASKS: { [N in HeavyName]: (given: HeavyTasks[N]['in']) => HeavyTasks[N]['out'] } = {
	calculate: ({ name, input }) => calculate(name, input),
	'plan site': ({ facts, warm }) => planSite(facts, { warm }),
	clusters: (facts) => clusterSigns(facts),
	'read items': ({ file, register }) => {
		const { items, ...rest } = readItemTable(file, register);
		return { ...rest, ...inParts(items) };
	},
	'read filters': ({ file, held, asOf }) => readStoreTable(file, held, asOf),
	'read parts': ({ file, held, asOf }) => readPartTable(file, held, asOf),
	'read wearers': ({ file, held }) => readWearerTable(file, held),
	'read substances': (file) => {
		const { good, ...rest } = readSubstanceTable(file);
		return {
			...rest,
			...inParts(good.map(({ substance }) => substance)),
			taken: inParts(
				good.map(({ row, substance: { key, name }, disagreements }): SubstanceTaken => ({
					row,
					key,
					name,
					disagreements
				}))
			).parts
		};
	}
};

/** An answer as it crosses between threads: classes of errors do not. */
export type Crossed<T> = { ok: true; value: T } | { ok: false; path: string; message: string };

/** Does one task; called by the pool. */
export default function work({ task, given }: { task: HeavyName; given: never }): Crossed<unknown> {
	try {
		return { ok: true, value: TASKS[task](given) };
	} catch (error) {
		if (error instanceof InputError) return { ok: false, path: error.path, message: error.message };
		throw error;
	}
}
