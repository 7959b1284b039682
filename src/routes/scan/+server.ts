import { redirect } from '@sveltejs/kit';
import { CARD_PATTERN } from '$lib/server/access/pins';
import { findByScan } from '$lib/server/register/scan';

/** Where a scanned or typed word leads: straight to what carries it, else to everything that words find. */
export const GET = async ({ url, locals }) => {
	const word = url.searchParams.get('q') ?? '';
	// A personal card: whoever holds it takes the bench over.
	const card = word.trim().toUpperCase();
	if (CARD_PATTERN.test(card)) redirect(303, `/hand-over?who=${card}`);
	const found = await findByScan(locals.db, word);
	redirect(303, found ?? `/search?q=${encodeURIComponent(word.trim())}`);
};
