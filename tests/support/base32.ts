const SIGNS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';

/** Bytes of a base32 text. Published: RFC 4648, 6, from memory. */
export function fromBase32(text: string): Buffer {
	const bits = [...text.replace(/=+$/, '')]
		.map((sign) => SIGNS.indexOf(sign).toString(2).padStart(5, '0'))
		.join('');
	return Buffer.from((bits.match(/.{8}/g) ?? []).map((byte) => parseInt(byte, 2)));
}
