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
	site: locals.site,
	theme: locals.theme
});
