import { redirect } from '@sveltejs/kit';
import { findByScan } from '$lib/server/register/scan';

/** Where a scanned or typed word leads: straight to what carries it, else to the register. */
export const GET = async ({ url, locals }) => {
	const word = url.searchParams.get('q') ?? '';
	const found = await findByScan(locals.db, word);
	redirect(303, found ?? `/items?q=${encodeURIComponent(word.trim())}`);
};
