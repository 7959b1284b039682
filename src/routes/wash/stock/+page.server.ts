import { z } from 'zod';
import { BATH_AGENTS } from '$core/care/wash-check';
import { closeStock, listStock, openStock } from '$lib/server/care/stock';
import { todayOf } from '$lib/server/kernel/context';
import { may } from '$lib/server/kernel/permissions';
import { optionalNumber } from '$lib/server/web/form-fields';
import { clientId, contextOf, formWrite, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const asOf = todayOf(context);
		return {
			asOf,
			stock: await listStock(context.db, asOf),
			mayKeep: may(context.actor.role, 'keep stock for the bath')
		};
	});

const figure = (what: string) => optionalNumber((text) => `“${text}” is no ${what}.`);
const day = z.iso.date('A day.').max(10);

export const actions: Actions = {
	open: formWrite(
		z.object({
			id: clientId,
			name: z.string().trim().min(1, 'Give it the name that stands on it.').max(60),
			agent: z.enum(BATH_AGENTS, 'Choose what it is.'),
			percent: figure('strength').transform((p) => p ?? null),
			strengthAs: z
				.enum(['available chlorine', 'sodium hypochlorite'])
				.default('available chlorine'),
			openedOn: day,
			halfLifeDays: figure('number of days').transform((d) => d ?? null),
			expiresOn: day.or(z.literal('').transform(() => null)),
			leftMl: figure('number of millilitres').transform((ml) => ml ?? 0),
			labelMin: figure('number of minutes').transform((m) =>
				m === undefined ? null : Math.ceil(m)
			)
		}),
		(event: RequestEvent, form) => openStock(contextOf(event), form)
	),
	close: formWrite(
		z.object({ ...requested, id: clientId, version: z.coerce.number().int().min(1).max(1e9) }),
		(event: RequestEvent, form) => closeStock(contextOf(event), form)
	)
};
