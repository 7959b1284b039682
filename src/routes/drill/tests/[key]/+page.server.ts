import { error } from '@sveltejs/kit';
import { shortTest } from '$core/drill/short-test-names';
import { contextOf } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => {
	const test = shortTest(event.params.key);
	if (!test) error(404, 'There is no such test.');
	return { test, ruleSet: contextOf(event).site.ruleSet };
};
