import { mailbox } from '$lib/server/notices/own';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => ({ messages: await mailbox(contextOf(event)) }));
