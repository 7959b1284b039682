/** What stands in a page that was made for nobody in particular, until it is known who asks. */
export interface Filling {
	text: string;
	/** Within a script it is part of a string or a number there; else it is text or part of an attribute. */
	inScript: string;
}

/** A page with blanks: text, and the name of the blank behind it, in turn. */
export interface Blanked {
	texts: readonly string[];
	blanks: readonly { name: string; inScript: boolean }[];
}

const SCRIPT = /<script\b[^>]*>[\s\S]*?<\/script>/gi;

/**
 * Takes a page apart at its marks.
 * @param marks the text of each mark, by the name of its blank; no mark is part of another
 */
export function takeApart(html: string, marks: ReadonlyMap<string, string>): Blanked {
	const names = new Map([...marks].map(([name, mark]) => [mark, name]));
	const scripts = [...html.matchAll(SCRIPT)].map(({ 0: text, index }) => [
		index,
		index + text.length
	]);
	const anyMark = new RegExp([...names.keys()].map(escapeForPattern).join('|'), 'g');
	const texts: string[] = [];
	const blanks: { name: string; inScript: boolean }[] = [];
	let [from, script] = [0, 0];
	for (const { 0: mark, index } of html.matchAll(anyMark)) {
		texts.push(html.slice(from, index));
		from = index + mark.length;
		while ((scripts[script]?.[1] ?? Infinity) <= index) script++;
		const inScript = (scripts[script]?.[0] ?? Infinity) <= index;
		blanks.push({ name: names.get(mark) ?? '', inScript });
	}
	texts.push(html.slice(from));
	return { texts, blanks };
}

/** Puts what is known now into the blanks of a page. */
export function fillIn({ texts, blanks }: Blanked, fillingOf: (name: string) => Filling): string {
	const known = new Map<string, Filling>();
	let html = texts[0] ?? '';
	blanks.forEach(({ name, inScript }, i) => {
		let filling = known.get(name);
		if (!filling) known.set(name, (filling = fillingOf(name)));
		html += (inScript ? filling.inScript : filling.text) + (texts[i + 1] ?? '');
	});
	return html;
}

/** Words of a person: they mean nothing to the page, wherever they stand. */
export const asWords = (words: string): Filling => ({
	text: words.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`),
	inScript: JSON.stringify(words)
		.slice(1, -1)
		.replace(
			/[<>\u2028\u2029]/g,
			(sign) => `\\u${sign.charCodeAt(0).toString(16).padStart(4, '0')}`
		)
});

/** What has no sign in it that means anything to a page: a number, an id. */
export const asIs = (text: string): Filling => ({ text, inScript: text });

const escapeForPattern = (text: string) => text.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');
