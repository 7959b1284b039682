import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { formBody, page } from '$lib/server/web/request';

const YEAR_S = 31_536_000;
/** Only a path of our own may be gone back to. */
const form = z.object({
	theme: z.enum(['day', 'night']).catch('day'),
	next: z
		.string()
		.regex(/^\/(?![/\\])/)
		.catch('/')
});

export const POST = async ({ request, cookies }) => {
	const { theme, next } = form.parse(await page(() => formBody(request)));
	cookies.set('theme', theme, { path: '/', maxAge: YEAR_S, sameSite: 'lax', httpOnly: true });
	redirect(303, next);
};
