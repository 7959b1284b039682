import { z } from 'zod';
import { searchSubstances } from '$lib/server/hazards/substances';
import { may } from '$lib/server/kernel/permissions';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

const text = z.string().max(120).catch('');
const SHOWN = 300;

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const q = text.parse(event.url.searchParams.get('q') ?? '');
		const found = await searchSubstances(context.db, q, SHOWN + 1);
		return {
			q,
			cut: found.length > SHOWN,
			mayEdit: may(context.actor.role, 'edit substances'),
			substances: found.slice(0, SHOWN).map((s) => ({
				key: s.key,
				name: s.name,
				cas: s.cas ?? '',
				form: s.form,
				limit: s.limits[event.locals.site.ruleSet] ?? null,
				idlh: s.idlh ?? null,
				en: s.en ?? null,
				us: s.us ?? null,
				noFilter: Boolean(s.noFilter),
				warning: s.warning,
				changed: Boolean(s.origins)
			}))
		};
	});
