import { runningTimers } from '$lib/server/inspection/timers';
import { steadyNow } from '$lib/server/kernel/steady';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = async ({ locals }) => ({
	...(await holds(locals)),
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

/** Holds that run, and the time that they run on. Without the database the page itself says so. */
async function holds({ actor, db }: App.Locals) {
	const now = () => new Date();
	try {
		const timers = actor ? await runningTimers(db) : [];
		const serverNow = timers.length ? await steadyNow({ db, now }) : now();
		return { timers, serverNow: serverNow.getTime() };
	} catch {
		return { timers: [], serverNow: Date.now() };
	}
}
