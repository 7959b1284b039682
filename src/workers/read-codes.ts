import { readBarcodes } from 'zxing-wasm/reader';
import { grayOf } from '../core/picture/gray.ts';
import { finderSquares } from '../core/scan/finders.ts';
import type { SightedCode } from '../core/scan/sight.ts';

/**
 * Every code of the app's labels in a picture: square codes and bar codes; where none is read, the corners of square
 * codes that are half hidden.
 */
export async function codesIn(picture: ImageData): Promise<SightedCode[]> {
	const read = await readBarcodes(picture, {
		formats: ['QRCode', 'Code128'],
		tryHarder: true,
		returnErrors: true,
		maxNumberOfSymbols: 24
	});
	const codes = read.map(({ isValid, text, format, position }): SightedCode => ({
		text: isValid ? text : null,
		kind: format === 'QRCode' ? 'qr' : 'bar',
		corners: [position.topLeft, position.topRight, position.bottomRight, position.bottomLeft]
	}));
	// A bar code that cannot be read is as often a grille or a text.
	const told = codes.filter(({ text, kind }) => text !== null || kind === 'qr');
	if (told.length) return told;
	return finderSquares(grayOf(picture.width, picture.height, picture.data)).map((middle) => ({
		text: null,
		kind: 'qr',
		corners: [middle]
	}));
}
