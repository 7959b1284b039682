import Papa from 'papaparse';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { csvOf, nextSort, sortedAt, sortOf, type TableColumn } from './table';

interface Row {
	tag: string;
	bar: number | null;
}
const columns: TableColumn<Row>[] = [
	{ key: 'tag', head: 'Tag', value: ({ tag }) => tag },
	{ key: 'bar', head: 'In it, bar', value: ({ bar }) => bar }
];

describe('how a list is sorted', () => {
	it('a head goes up, down, and back to how it came', () => {
		expect(['', 'tag', '-tag', 'due'].map((sort) => nextSort(sort, 'tag'))).toEqual([
			'tag',
			'-tag',
			'',
			'tag'
		]);
		expect(sortOf('-tag')).toEqual({ key: 'tag', desc: true });
		expect(sortOf('')).toBeNull();
	});

	it('stands in the address beside what was filtered, from the first page on', () => {
		const url = new URL('http://a/items?q=quay&page=4&sort=tag');
		expect(sortedAt(url, '-tag')).toBe('/items?q=quay&sort=-tag');
		expect(sortedAt(url, '')).toBe('/items?q=quay');
		expect(url.search).toBe('?q=quay&page=4&sort=tag');
	});
});

describe('what is seen, as CSV', () => {
	it('reads back as it was, whatever stands in it, and never as a formula', async () => {
		await fc.assert(
			fc.asyncProperty(
				fc.array(
					fc.record({
						// One that begins with the apostrophe itself cannot be told apart when it is read back.
						tag: fc.string({ maxLength: 12 }).filter((text) => !text.startsWith("'")),
						bar: fc.option(fc.integer(), { nil: null })
					}),
					{ minLength: 1, maxLength: 8 }
				),
				async (rows) => {
					const [head, ...body] = Papa.parse<string[]>(await csvOf(rows, columns)).data;
					expect(head).toEqual(['Tag', 'In it, bar']);
					expect(body.map(([tag = '']) => tag.replace(/^'(?=[=+\-@\t\r])/, ''))).toEqual(
						rows.map(({ tag }) => tag)
					);
					expect(body.map(([, bar]) => bar)).toEqual(rows.map(({ bar }) => String(bar ?? '')));
					expect(body.every(([tag = '']) => !/^[=+\-@\t\r]/.test(tag))).toBe(true);
				}
			)
		);
	});
});
