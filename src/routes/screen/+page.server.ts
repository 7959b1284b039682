import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { SCREEN_CODE, SCREEN_HOURS } from '$core/access/screen';
import { lightScreen, shownOn } from '$lib/server/access/screens';
import { doorContext } from '$lib/server/web/entrance';
import { formAction } from '$lib/server/web/request';
import { SCREEN_COOKIE } from '$lib/server/web/screen-cookie';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const plain = (text: string) => text.toUpperCase().replace(/[\s-]/g, '');

export const load: PageServerLoad = async ({ locals, cookies, url }) => ({
	bare: true,
	shows: await shownOn(locals.db, cookies.get(SCREEN_COOKIE), new Date()),
	code: plain(url.searchParams.get('code') ?? '').slice(0, 12)
});

const form = z.object({
	code: z
		.string()
		.max(40)
		.transform(plain)
		.refine((code) => SCREEN_CODE.test(code), 'A code has eight letters and figures.')
});

export const actions: Actions = {
	follow: formAction(form, async (event: RequestEvent, { code }) => {
		const token = await lightScreen(doorContext(event), code, event.getClientAddress());
		event.cookies.set(SCREEN_COOKIE, token, {
			path: '/screen',
			httpOnly: true,
			sameSite: 'strict',
			secure: event.locals.origin.startsWith('https:'),
			maxAge: SCREEN_HOURS * 3600
		});
		redirect(303, '/screen');
	})
};
