import { runningTimers } from '$lib/server/inspection/timers';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = async ({ locals }) => ({
	/** Holds that run, and the time that they run on. Without the database the page itself says so. */
	timers: locals.actor ? await runningTimers(locals.db).catch(() => []) : [],
	serverNow: Date.now(),
	actor: locals.actor && {
		id: locals.actor.id,
		name: locals.actor.name,
		initials: locals.actor.initials,
		role: locals.actor.role
	},
	/** How the bench is shared, and what was tried in the name of the person meanwhile. */
	session: locals.session && {
		shared: locals.session.shared,
		failuresBefore: locals.session.failuresBefore,
		hasPin: locals.session.hasPin
	},
	site: locals.site,
	theme: locals.theme
});
