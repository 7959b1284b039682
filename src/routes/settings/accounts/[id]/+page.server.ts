import { z } from 'zod';
import { accountOf, changeAccount, renameAccount } from '$lib/server/access/account-changes';
import { makeLink } from '$lib/server/access/links';
import { sessionsOf } from '$lib/server/access/sessions';
import { history } from '$lib/server/records/history';
import { whose } from '../fields';
import { requirePermission, ROLES } from '$lib/server/kernel/permissions';
import { contextOf, formAction, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const idOf = ({ params }: RequestEvent): string => (params.id ?? '').slice(0, 100);

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor } = contextOf(event);
		requirePermission(actor.role, 'keep accounts');
		const account = await accountOf(db, event.params.id);
		return {
			account,
			roles: ROLES,
			sessions: await sessionsOf(db, account.id),
			lines: await history({ db }, { subject: `account:${account.id}`, details: true, limit: 40 })
		};
	});

/** A change that says nothing but which. */
const plain = (kind: 'open' | 'end sessions' | 'no second step') =>
	formAction(z.object(requested), async (event: RequestEvent, { requestId }) => {
		const id = idOf(event);
		await changeAccount(contextOf(event), { id: requestId, content: [kind, id] }, id, { kind });
		return { done: true };
	});

export const actions: Actions = {
	rename: formAction(
		z.object({
			...requested,
			...whose
		}),
		async (event: RequestEvent, { requestId, ...given }) => {
			const id = idOf(event);
			await renameAccount(contextOf(event), { id: requestId, content: [id, given] }, id, given);
			return { done: true };
		}
	),
	role: formAction(
		z.object({ ...requested, role: z.enum(ROLES) }),
		async (event: RequestEvent, { requestId, role }) => {
			const id = idOf(event);
			const request = { id: requestId, content: ['role', id, role] };
			await changeAccount(contextOf(event), request, id, { kind: 'role', role });
			return { done: true };
		}
	),
	link: formAction(z.object(requested), async (event: RequestEvent, { requestId }) => ({
		link: `${event.locals.origin}/invite/${await makeLink(contextOf(event), requestId, idOf(event))}`
	})),
	close: formAction(
		z.object({ ...requested, why: z.string().trim().min(1, 'Say why.').max(300) }),
		async (event: RequestEvent, { requestId, why }) => {
			const id = idOf(event);
			const request = { id: requestId, content: ['close', id, why] };
			await changeAccount(contextOf(event), request, id, { kind: 'close', why });
			return { done: true };
		}
	),
	open: plain('open'),
	endSessions: plain('end sessions'),
	endTwoStep: plain('no second step')
};
