import AxeBuilder from '@axe-core/playwright';
import type { Page } from './test';

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** Rows after these are made like the ones before; looking at all of them a second time finds nothing new. */
const ROWS_ALIKE = ':is(li, tr):nth-child(n + 9)';

/** What axe finds by all rules. */
export const faultsOf = async (page: Page) => said(page, await look(page).withTags(TAGS).analyze());

/** What axe finds by a few rules, where the rest was seen in another theme or width. */
export const faultsBy = async (page: Page, rules: string[]) =>
	said(page, await look(page).exclude(ROWS_ALIKE).withRules(rules).analyze());

// There are no frames: the plain way needs no page of its own for each look.
const look = (page: Page) =>
	new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode(true);

const said = (page: Page, { violations }: Awaited<ReturnType<AxeBuilder['analyze']>>) =>
	violations.map(
		(v) =>
			`${new URL(page.url()).pathname}: ${v.id}: ${v.nodes[0]?.html.slice(0, 200)} (${v.nodes.length})`
	);
