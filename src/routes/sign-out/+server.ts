import { redirect } from '@sveltejs/kit';
import { forgetVisit } from '$lib/server/runtime';

export const POST = async ({ locals, request, cookies }) => {
	forgetVisit(request.headers);
	await locals.auth.api.signOut({ headers: request.headers });
	for (const { name } of cookies.getAll())
		if (name.includes('grevan.')) cookies.delete(name, { path: '/' });
	redirect(303, '/sign-in');
};
