import { z } from 'zod';
import { REGISTERS } from '$core/records/registers';
import { PAST_KINDS, PAST_TABLES } from '$core/records/past-tables';
import { may } from '$lib/server/kernel/permissions';
import { PAST_NEEDS, previewPast, takePast } from '$lib/server/records/take-in';
import { contextOf, page, parse } from '$lib/server/web/request';
import { takeActions } from '$lib/server/web/table-actions';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const kindSchema = z.enum(PAST_KINDS, 'There is no such table.');
const kindOf = ({ params }: RequestEvent) => parse(kindSchema, params.kind);

export const load: PageServerLoad = (event) =>
	page(async () => {
		const kind = kindOf(event);
		const { columns } = PAST_TABLES[kind];
		return {
			kind,
			name: REGISTERS[kind].name,
			mayTake: may(contextOf(event).actor.role, PAST_NEEDS[kind]),
			needed: columns.filter(({ required }) => required).map(({ name }) => name),
			others: columns.filter(({ required }) => !required).map(({ name }) => name)
		};
	});

export const actions: Actions = takeActions<RequestEvent>(
	(context, file, event) => previewPast(context, kindOf(event), file),
	(context, given, event) => takePast(context, kindOf(event), given)
);
