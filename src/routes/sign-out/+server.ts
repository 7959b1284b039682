import { redirect } from '@sveltejs/kit';
import { forgetVisit } from '$lib/server/web/runtime';

export const POST = async ({ locals, request, cookies }) => {
	forgetVisit(request.headers);
	await locals.auth.api.signOut({ headers: request.headers });
	for (const { name } of cookies.getAll())
		if (name.includes('grevan.')) cookies.delete(name, { path: '/' });
	// Asked by the worker of the browser, which goes on by itself.
	if (request.headers.get('accept') === 'application/json')
		return Response.json({ signedOut: true });
	redirect(303, '/sign-in');
};
