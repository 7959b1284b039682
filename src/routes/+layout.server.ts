import { bathTimers } from '$lib/server/care/batch-lists';
import { runningTimers } from '$lib/server/inspection/timers';
import { steadyNow } from '$lib/server/kernel/steady';
import { untilRecorded } from '$lib/server/kernel/until-recorded';
import { ANY_MOMENT, ANY_STEADY_MOMENT, isAnyone } from '$lib/server/web/kept-page';
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

/** Holds of inspections and baths whose agent acts, each with the page that it belongs to. */
async function everyTimer(db: App.Locals['db']) {
	const [holding, baths] = await Promise.all([runningTimers(db), bathTimers(db)]);
	return [
		...holding.map(({ runId, ...timer }) => ({
			...timer,
			href: `/runs/${runId}`,
			over: 'read the gauge'
		})),
		...baths.map(({ number, ...timer }) => ({
			...timer,
			tag: `batch ${number}`,
			href: `/wash/${timer.id}`,
			over: 'out and rinse'
		}))
	];
}

/** Holds that run, and the time that they run on. Without the database the page itself says so. */
async function holds({ actor, db, site }: App.Locals) {
	const now = () => new Date();
	try {
		const timers = actor
			? await untilRecorded({ db, site, now }, 'timers', () => everyTimer(db))
			: [];
		if (isAnyone(actor))
			return { timers, serverNow: timers.length ? ANY_STEADY_MOMENT : ANY_MOMENT };
		const serverNow = timers.length ? await steadyNow({ db, now }) : now();
		return { timers, serverNow: serverNow.getTime() };
	} catch {
		return { timers: [], serverNow: Date.now() };
	}
}
