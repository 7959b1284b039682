import { COUNTER_CODES } from '$lib/ui/counter/codes';
import { chooseFrom } from '$lib/server/handout/scan';
import { requirePermission } from '$lib/server/kernel/permissions';
import { codeSvg } from '$lib/server/web/codes';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		requirePermission(context.actor.role, 'hand out');
		const { plans } = await chooseFrom(context.db);
		const drawn = (code: string, words: string) => ({ code, words, svg: codeSvg('qrcode', code) });
		return {
			codes: COUNTER_CODES.filter(({ words }) => words).map(({ code, words }) =>
				drawn(code, words)
			),
			plans: plans.map(({ number, task }) => drawn(`PLAN-${number}`, task))
		};
	});
