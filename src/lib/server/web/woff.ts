import { inflateSync } from 'node:zlib';

/** Bytes of the header and of an entry of the directory: of WOFF, and of the font within. */
const [WOFF_HEADER, WOFF_ENTRY] = [44, 20];
const [SFNT_HEADER, SFNT_ENTRY] = [12, 16];
const padded = (length: number) => (length + 3) & ~3;

/**
 * The font within a WOFF file, as OpenType has it: unpacked once instead of for each document.
 * Published: W3C, WOFF File Format 1.0, sections 3 to 5; from memory.
 * @throws RangeError where it is no WOFF file
 */
export function fontOfWoff(woff: Buffer): Buffer {
	if (woff.toString('latin1', 0, 4) !== 'wOFF') throw new RangeError('no WOFF file');
	const tables = Array.from({ length: woff.readUInt16BE(12) }, (_, i) => {
		const at = WOFF_HEADER + i * WOFF_ENTRY;
		const packed = woff.subarray(
			woff.readUInt32BE(at + 4),
			woff.readUInt32BE(at + 4) + woff.readUInt32BE(at + 8)
		);
		const length = woff.readUInt32BE(at + 12);
		return {
			tag: woff.subarray(at, at + 4),
			checksum: woff.readUInt32BE(at + 16),
			bytes: packed.length < length ? inflateSync(packed) : packed
		};
	});
	const exponent = Math.floor(Math.log2(tables.length));
	const header = Buffer.alloc(SFNT_HEADER + tables.length * SFNT_ENTRY);
	woff.copy(header, 0, 4, 8);
	header.writeUInt16BE(tables.length, 4);
	header.writeUInt16BE(16 * 2 ** exponent, 6);
	header.writeUInt16BE(exponent, 8);
	header.writeUInt16BE(16 * (tables.length - 2 ** exponent), 10);
	let offset = header.length;
	const parts: Buffer[] = [header];
	for (const [i, { tag, checksum, bytes }] of tables.entries()) {
		const at = SFNT_HEADER + i * SFNT_ENTRY;
		tag.copy(header, at);
		header.writeUInt32BE(checksum, at + 4);
		header.writeUInt32BE(offset, at + 8);
		header.writeUInt32BE(bytes.length, at + 12);
		parts.push(bytes, Buffer.alloc(padded(bytes.length) - bytes.length));
		offset += padded(bytes.length);
	}
	return Buffer.concat(parts);
}
