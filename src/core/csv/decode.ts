import { InputError } from '../verdict.ts';

export interface Decoded {
	text: string;
	encoding: 'UTF-8' | 'UTF-16' | 'Windows-1252';
}

/**
 * Text of a file that a spreadsheet may have written: UTF-8 or UTF-16 with its mark, else UTF-8 where the bytes
 * are valid, else Windows-1252. Both scripts of the decoder are part of the language, no I/O.
 * @throws InputError at file when the bytes are no text, such as a spreadsheet's own binary format.
 */
export function decodeText(bytes: Uint8Array): Decoded {
	const [a, b] = bytes;
	if (a === 0x50 && b === 0x4b)
		throw new InputError(
			'file',
			'This is a spreadsheet or an archive, not CSV. Save it as CSV first.'
		);
	if ((a === 0xff && b === 0xfe) || (a === 0xfe && b === 0xff)) {
		const name = a === 0xff ? 'utf-16le' : 'utf-16be';
		return { text: new TextDecoder(name).decode(bytes), encoding: 'UTF-16' };
	}
	if (bytes.subarray(0, 4096).includes(0))
		throw new InputError('file', 'This is not a text file. Save the table as CSV (UTF-8).');
	try {
		return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
	} catch {
		return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'Windows-1252' };
	}
}
