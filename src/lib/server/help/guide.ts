import MarkdownIt from 'markdown-it';

/** One page of the guide. */
export interface GuidePage {
	/** Names it in addresses. */
	key: string;
	title: string;
	/** As it is shown. */
	html: string;
	/** Its words, for searching. */
	text: string;
}

const SOURCES = import.meta.glob<string>('/docs/guide/*.md', {
	query: '?raw',
	import: 'default',
	eager: true
});
const markdown = new MarkdownIt({ html: false, linkify: false });

function read(path: string, source: string): GuidePage {
	const key = path.replace(/^.*\/\d+-/, '').replace(/\.md$/, '');
	const [first = '', ...rest] = source.split('\n');
	const body = rest.join('\n');
	return {
		key,
		title: first.replace(/^#\s*/, '').trim(),
		html: markdown.render(body),
		text: body.replaceAll(/[*`#|]|^\s*-/gm, ' ').replaceAll(/\s+/g, ' ')
	};
}

/** The guide for people who work with the app, in its order. */
export const GUIDE: readonly GuidePage[] = Object.entries(SOURCES)
	.sort(([a], [b]) => a.localeCompare(b))
	.map(([path, source]) => read(path, source));
