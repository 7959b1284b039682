import { z } from 'zod';
import { accountOf } from '$lib/server/access/account-changes';
import { changePassword } from '$lib/server/access/own-account';
import { choosePin, newCard } from '$lib/server/access/pins';
import { endOwnSessions, seenTries, sessionsOf } from '$lib/server/access/sessions';
import { beginTwoStep, confirmTwoStep, endTwoStep, owesTwoStep } from '$lib/server/access/two-step';
import { history } from '$lib/server/records/history';
import { Refusal } from '$lib/server/kernel/refusal';
import { codeSvg } from '$lib/server/web/codes';
import { entranceOf, passCookies } from '$lib/server/web/entrance';
import { contextOf, formAction, page, requested } from '$lib/server/web/request';
import { forgetVisit } from '$lib/server/web/visits';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor, site } = contextOf(event);
		const account = await accountOf(db, actor.id);
		return {
			account,
			cardQr: account.card && codeSvg('qrcode', account.card),
			cardBar: account.card && codeSvg('code128', account.card),
			sessions: await sessionsOf(db, actor.id),
			lines: await history({ db }, { subject: `account:${actor.id}`, details: true, limit: 12 }),
			here: event.locals.session?.id ?? null,
			mustTwoStep: owesTwoStep(site, account)
		};
	});

/** The session of the page. @throws Refusal for a program */
function sessionId({ locals }: RequestEvent): string {
	if (!locals.session) throw new Refusal('forbidden', 'A program has no session.');
	return locals.session.id;
}

const asking = (event: RequestEvent) => ({
	...entranceOf(event),
	cookie: event.request.headers.get('cookie')
});
const secret = z.string().max(200);

export const actions: Actions = {
	pin: formAction(
		z.object({ ...requested, pin: z.string().trim().max(20), again: z.string().trim().max(20) }),
		async (event: RequestEvent, { requestId, pin, again }) => {
			if (pin !== again) throw new Refusal('invalid', 'The two are not the same.', 'pinAgain');
			await choosePin(event.locals.auth, contextOf(event), requestId, pin);
			forgetVisit(event.request.headers);
			return { done: 'pin' };
		}
	),
	card: formAction(z.object(requested), async (event: RequestEvent, { requestId }) => {
		await newCard(contextOf(event), requestId);
		return { done: 'card' };
	}),
	password: formAction(
		z.object({ ...requested, before: secret, password: secret, again: secret }),
		async (event: RequestEvent, { requestId, before, password, again }) => {
			if (password !== again) throw new Refusal('invalid', 'The two are not the same.', 'again');
			await changePassword(event.locals.auth, contextOf(event), requestId, {
				before,
				password,
				sessionId: sessionId(event)
			});
			return { done: 'password' };
		}
	),
	twoStep: formAction(z.object({ secret }), async (event: RequestEvent, { secret: password }) => {
		const { uri, codes } = await beginTwoStep(contextOf(event), asking(event), password);
		return { qr: codeSvg('qrcode', uri), key: new URL(uri).searchParams.get('secret'), codes };
	}),
	confirm: formAction(
		z.object({ code: z.string().trim().max(20) }),
		async (event: RequestEvent, { code }) => {
			const cookies = await confirmTwoStep(contextOf(event), asking(event), {
				code,
				sessionId: sessionId(event)
			});
			forgetVisit(event.request.headers);
			passCookies(event.cookies, event.locals.origin, cookies);
			return { done: 'two-step' };
		}
	),
	endTwoStep: formAction(z.object(requested), async (event: RequestEvent, { requestId }) => {
		await endTwoStep(contextOf(event), requestId);
		return { done: 'no two-step' };
	}),
	end: formAction(
		z.object({ ...requested, id: z.string().min(1).max(100) }),
		async (event: RequestEvent, { requestId, id }) =>
			endOwnSessions(contextOf(event), { id: requestId, content: ['end', id] }, { id })
	),
	endAll: formAction(z.object(requested), async (event: RequestEvent, { requestId }) =>
		endOwnSessions(
			contextOf(event),
			{ id: requestId, content: ['end all'] },
			{ allBut: sessionId(event) }
		)
	),
	seen: formAction(z.object(requested), async (event: RequestEvent, { requestId }) => {
		await seenTries(contextOf(event), { id: requestId, content: ['seen'] }, sessionId(event));
		forgetVisit(event.request.headers);
		return { done: 'seen' };
	})
};
