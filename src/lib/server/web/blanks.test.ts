import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asIs, asWords, fillIn, takeApart } from './blanks.ts';

const MARKS = new Map([
	['name', 'gNAME'],
	['id', 'gID'],
	['moment', '4444']
]);
const PAGE = `<p title="gNAME">gNAME</p><script nonce="gID">const d = {name:"gNAME",now:4444}</script><i>gNAME</i>`;
const fill = (name: string) =>
	fillIn(takeApart(PAGE, MARKS), (blank) =>
		blank === 'name' ? asWords(name) : asIs(blank === 'id' ? 'n1' : '12')
	);

/** What a browser reads out of text and attributes of our own escaping. */
const read = (html: string) =>
	html.replace(/&#(\d+);/g, (_, code: string) => String.fromCharCode(Number(code)));

describe('a page with blanks', () => {
	it('gets a plain name wherever it stands', () => {
		expect(fill('Odd')).toBe(
			'<p title="Odd">Odd</p><script nonce="n1">const d = {name:"Odd",now:12}</script><i>Odd</i>'
		);
	});

	it('comes back whole where its own marks are put in', () => {
		const blanked = takeApart(PAGE, MARKS);
		expect(fillIn(blanked, (name) => asIs(MARKS.get(name) ?? ''))).toBe(PAGE);
		expect(blanked.blanks.map(({ inScript }) => inScript)).toEqual([
			...[false, false],
			...[true, true, true],
			false
		]);
	});

	it('knows what stands in which of several scripts', () => {
		const html = `gID<script>gID</script>gID<SCRIPT type="a">gID</SCRIPT>gID`;
		expect(takeApart(html, MARKS).blanks.map(({ inScript }) => inScript)).toEqual([
			...[false, true, false],
			...[true, false]
		]);
	});

	it('asks once for each blank of an answer', () => {
		let asked = 0;
		fillIn(takeApart('gID gID gID', MARKS), () => asIs(String(++asked)));
		expect(asked).toBe(1);
	});

	it('reads every name as it was given, and none as anything else', () => {
		const awkward = fc.oneof(
			fc.string({ unit: 'binary' }),
			fc
				.array(
					fc.constantFrom('</script>', '<!--', '"', "'", '\\', '&', '\u2028', '\n', '$&', 'gNAME')
				)
				.map((parts) => parts.join(''))
		);
		fc.assert(
			fc.property(awkward, (name) => {
				const html = fill(name);
				const [, title, text] = /^<p title="([^"<>]*)">([^<>]*)<\/p>/.exec(html) ?? [];
				expect([title, text].map((part) => read(part ?? ''))).toEqual([name, name]);
				const script = /<script nonce="n1">(.*?)<\/script>/s.exec(html)?.[1] ?? '';
				const data = new Function(`${script}; return d`)() as { name: string; now: number };
				expect(data).toEqual({ name, now: 12 });
				// Neither an end of the script nor a comment begins within it.
				expect(script).not.toMatch(/<|>/);
			})
		);
	});
});
