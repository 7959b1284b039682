import type { ItemFacts } from '../../../core/readiness/facts.ts';
import { duesOf, findingsOf, NEVER } from '../../../core/readiness/findings.ts';
import { cacheOf } from '../../../core/readiness/item-state.ts';
import type { Connection } from '../db/client.ts';
import { keepStates, type KeptState } from '../db/queries/states.ts';
import type { Site } from '../kernel/site.ts';
import { loadFacts } from './facts.ts';

/** Items that are worked out together. */
const CHUNK = 500;

/** What is kept of the facts of an item so that many can be asked for at once. */
export function keptOf(itemId: string, facts: ItemFacts, ruleSet: Site['ruleSet']): KeptState {
	const findings = findingsOf(facts, ruleSet, NEVER);
	const state = cacheOf(findings, facts);
	return {
		itemId,
		...state,
		lastInspectionOn: facts.lastInspectionOn,
		// What is out of use for good asks for nothing any more.
		dues: state.blocked === 'retired' ? [] : duesOf(findings)
	};
}

/**
 * Works the kept state and the dues of items, and of the sets that they are in, out anew from their facts. The one
 * function that writes them; every write ends with it.
 */
export async function rebuildState(
	tx: Connection,
	changed: readonly string[],
	site: Site
): Promise<void> {
	for (let i = 0; i < changed.length; i += CHUNK) {
		const ids = changed.slice(i, i + CHUNK);
		const asked = new Set(ids);
		const items = await loadFacts(tx, ids, site, { withSets: true });
		const rebuilt = [...items.values()].filter(
			(one) => asked.has(one.id) || one.facts.parts?.length
		);
		await keepStates(
			tx,
			rebuilt.map(({ id, facts }) => keptOf(id, facts, site.ruleSet))
		);
	}
}
