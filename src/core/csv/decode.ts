import { InputError } from '../verdict.ts';
import { type Encoding, ENCODINGS, type TableAsks, type TableWays } from './ways.ts';

export interface Decoded {
	text: string;
	encoding: 'UTF-8' | 'UTF-16' | Encoding;
	/** Which of the encodings it is, where it is none that says so itself and nobody said it yet. */
	asks: TableAsks;
}

/** Letters of a line that shows an encoding. */
const SAMPLE = 60;

/**
 * Text of a file that a spreadsheet may have written: UTF-8 or UTF-16 with its mark, else UTF-8 where the bytes
 * are valid, else an encoding of one byte a letter: the one that was said, Windows-1252 where nobody can be asked. The
 * decoder is part of the language, no I/O.
 * @param ways what was said of it; left out: nobody can be asked
 * @throws InputError at file when the bytes are no text, such as a spreadsheet's own binary format.
 */
export function decodeText(bytes: Uint8Array, ways?: TableWays): Decoded {
	const [a, b] = bytes;
	if (a === 0x50 && b === 0x4b)
		throw new InputError(
			'file',
			'This is a spreadsheet or an archive, not CSV. Save it as CSV first.'
		);
	if ((a === 0xff && b === 0xfe) || (a === 0xfe && b === 0xff)) {
		const name = a === 0xff ? 'utf-16le' : 'utf-16be';
		return { text: new TextDecoder(name).decode(bytes), encoding: 'UTF-16', asks: {} };
	}
	if (bytes.subarray(0, 4096).includes(0))
		throw new InputError('file', 'This is not a text file. Save the table as CSV (UTF-8).');
	try {
		const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
		return { text, encoding: 'UTF-8', asks: {} };
	} catch {
		const encoding = ways?.encoding ?? 'Windows-1252';
		const asks = ways && !ways.encoding ? { encoding: samples(bytes) } : {};
		return { text: new TextDecoder(encoding).decode(bytes), encoding, asks };
	}
}

/** The first line with a letter beyond ASCII as each encoding reads it. */
function samples(bytes: Uint8Array): { encoding: Encoding; sample: string }[] {
	const at = bytes.findIndex((byte) => byte > 127);
	const from = bytes.lastIndexOf(10, at) + 1;
	const to = bytes.indexOf(10, at);
	const start = Math.max(from, at - SAMPLE / 2);
	const line = bytes.subarray(start, Math.min(to < 0 ? bytes.length : to, start + SAMPLE));
	return ENCODINGS.map((encoding) => ({
		encoding,
		sample: new TextDecoder(encoding).decode(line).trim()
	}));
}
