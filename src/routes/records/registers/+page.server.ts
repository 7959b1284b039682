import { PAST_KINDS } from '$core/records/past-tables';
import { REGISTER_KEYS, type RegisterKey, REGISTERS } from '$core/records/registers';
import { may } from '$lib/server/kernel/permissions';
import { contextOf, page } from '$lib/server/web/request';
import { periodOf } from '$lib/server/web/record-search';
import type { PageServerLoad } from './$types';

/** Where a table of a register is taken in; null: it comes about by work alone. */
const OWN_PAGES: Partial<Record<RegisterKey, string>> = {
	items: '/items/import',
	wearers: '/people/import',
	filters: '/filters/import',
	parts: '/filters/import'
};
const takeInAt = (key: RegisterKey): string | null =>
	PAST_KINDS.some((kind) => kind === key) ? `/records/registers/${key}` : (OWN_PAGES[key] ?? null);

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { actor } = contextOf(event);
		const { from, to } = periodOf(event.url.searchParams);
		return {
			from,
			to,
			registers: REGISTER_KEYS.map((key) => {
				const { name, what, period, see } = REGISTERS[key];
				return { key, name, what, period, maySee: may(actor.role, see), takeIn: takeInAt(key) };
			})
		};
	});
