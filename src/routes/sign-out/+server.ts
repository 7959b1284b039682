import { redirect } from '@sveltejs/kit';
import { endSession } from '$lib/server/access/sessions';
import { doorContext, dropSessionCookies } from '$lib/server/web/entrance';
import { forgetVisit } from '$lib/server/web/visits';

export const POST = async (event) => {
	const { actor, session } = event.locals;
	forgetVisit(event.request.headers);
	if (actor && session) await endSession(doorContext(event), actor, session.id, 'signed out');
	dropSessionCookies(event.cookies);
	// Asked by the worker of the browser, which goes on by itself.
	if (event.request.headers.get('accept') === 'application/json')
		return Response.json({ signedOut: true });
	redirect(303, '/sign-in');
};
