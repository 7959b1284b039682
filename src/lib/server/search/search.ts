import { type Found, looksLikeTag, rank } from '../../../core/search/rank.ts';
import { findWords } from '../db/queries/search.ts';
import type { Context } from '../kernel/context.ts';
import { may } from '../kernel/permissions.ts';
import { GUIDE } from '../help/guide.ts';
import { tidyTag } from '../register/items.ts';
import { PAGES } from './pages.ts';

/** Characters that are read of what is asked for. */
const LONGEST = 80;
const MOST_WORDS = 6;
/** More is a list to read, not an answer. */
const SHOWN = 40;

/** What words find anywhere, the best first; and a tag that nothing carries, where it could be added. */
export async function search(
	{ db, actor }: Pick<Context, 'db' | 'actor'>,
	text: string
): Promise<{ found: Found[]; more: boolean; addTag: string | null }> {
	const asked = text.trim().slice(0, LONGEST);
	const words = asked.split(/\s+/).filter(Boolean).slice(0, MOST_WORDS);
	const pages = PAGES.filter(({ needs }) => may(actor.role, needs)).map(
		({ name, also, href }): Found => ({ kind: 'action', name, detail: also, href })
	);
	const guide = GUIDE.map(({ key, title }): Found => ({
		kind: 'guide',
		name: `Guide: ${title}`,
		detail: 'help how to',
		href: `/help#${key}`
	}));
	const things = (await findWords(db, words)).filter(
		({ kind }) =>
			(kind !== 'person' || may(actor.role, 'keep accounts')) &&
			(kind !== 'wearer' || may(actor.role, 'see wearers'))
	);
	const found = rank([...pages, ...things, ...guide], words.join(' '));
	const tag = tidyTag(asked);
	const taken = found.some(({ kind, name }) => kind === 'item' && name === tag);
	const addTag = looksLikeTag(asked) && !taken && may(actor.role, 'keep the register') ? tag : null;
	return { found: found.slice(0, SHOWN), more: found.length > SHOWN, addTag };
}
