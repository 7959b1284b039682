import { REGISTER_KEYS, REGISTERS } from '$core/records/registers';
import { may } from '$lib/server/kernel/permissions';
import { contextOf, page } from '$lib/server/web/request';
import { periodOf } from '$lib/server/web/record-search';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { actor } = contextOf(event);
		const { from, to } = periodOf(event.url.searchParams);
		return {
			from,
			to,
			registers: REGISTER_KEYS.map((key) => {
				const { name, what, period, see } = REGISTERS[key];
				return { key, name, what, period, maySee: may(actor.role, see) };
			})
		};
	});
