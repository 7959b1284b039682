import { redirect } from '@sveltejs/kit';

export const POST = async ({ locals, request, cookies }) => {
	await locals.auth.api.signOut({ headers: request.headers });
	for (const { name } of cookies.getAll())
		if (name.includes('grevan.')) cookies.delete(name, { path: '/' });
	redirect(303, '/sign-in');
};
