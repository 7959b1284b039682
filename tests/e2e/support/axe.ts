import axe from 'axe-core';
import type { Page } from './test';

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** Rows after these are made like the ones before; looking at all of them a second time finds nothing new. */
const ROWS_ALIKE = ':is(li, tr):nth-child(n + 9)';

/** What axe finds by all rules. */
export const faultsOf = (page: Page) => look(page, { leaves: [], type: 'tag', values: TAGS });

/** What axe finds by a few rules, where the rest was seen in another theme or width. */
export const faultsBy = (page: Page, rules: string[]) =>
	look(page, { leaves: [ROWS_ALIKE], type: 'rule', values: rules });

interface Asked {
	/** What is not looked at. */
	leaves: string[];
	type: 'tag' | 'rule';
	values: string[];
}

/** Puts axe into the page where it is not yet: there are no frames, and one page is looked at more than once. */
async function look(page: Page, asked: Asked): Promise<string[]> {
	if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
	const violations = await page.evaluate(async ({ leaves, ...runOnly }) => {
		const { axe: here } = window as unknown as { axe: typeof axe };
		const { violations } = await here.run(
			{ include: [['html']], exclude: leaves.map((one) => [one]) },
			{ runOnly, resultTypes: ['violations'] }
		);
		return violations.map(({ id, nodes }) => ({
			id,
			html: nodes[0]?.html ?? '',
			count: nodes.length
		}));
	}, asked);
	return violations.map(
		({ id, html, count }) =>
			`${new URL(page.url()).pathname}: ${id}: ${html.slice(0, 200)} (${count})`
	);
}
