import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = ({ locals }) => ({
	actor: locals.actor && {
		id: locals.actor.id,
		name: locals.actor.name,
		initials: locals.actor.initials,
		role: locals.actor.role
	},
	site: locals.site,
	theme: locals.theme
});
