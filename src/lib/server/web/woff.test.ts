import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { fontOfWoff } from './woff.ts';

const FOLDER = 'node_modules/@fontsource/noto-sans/files';
const files = readdirSync(FOLDER).filter((file) =>
	/-(?:greek|cyrillic)-[47]00-normal\.woff$/.test(file)
);

/** Published: OpenType, "Calculating checksums": the sum of a table's 32-bit words; from memory. */
function checksum(table: Buffer): number {
	let sum = 0;
	for (let at = 0; at < table.length; at += 4) sum = (sum + table.readUInt32BE(at)) >>> 0;
	return sum;
}

describe('a font out of WOFF', () => {
	it.each(files)('%s: every table has the checksum that its directory states', (file) => {
		const font = fontOfWoff(readFileSync(join(FOLDER, file)));
		const tables = font.readUInt16BE(4);
		expect(tables).toBeGreaterThan(8);
		for (let i = 0; i < tables; i++) {
			const at = 12 + 16 * i;
			const tag = font.toString('latin1', at, at + 4);
			const from = font.readUInt32BE(at + 8);
			const padded = font.subarray(from, from + ((font.readUInt32BE(at + 12) + 3) & ~3));
			// The head table states a number that makes the sum of the whole file come out: it counts as zero.
			const counted = Buffer.from(padded);
			if (tag === 'head') {
				expect(counted.readUInt32BE(12)).toBe(0x5f0f3cf5);
				counted.writeUInt32BE(0, 8);
			}
			expect(checksum(counted), tag).toBe(font.readUInt32BE(at + 4));
		}
	});

	it('is refused where it is none', () =>
		expect(() => fontOfWoff(Buffer.from('wOF2 and so on'))).toThrow(/no WOFF/));
});
