import type { GaugeDial } from '../core/dial/model.ts';
import { readDial, type DialReading, type DialRefusal } from '../core/dial/read.ts';
import type { DialGuess } from '../core/dial/rim.ts';
import { grayOf } from '../core/picture/gray.ts';

/** A picture and the gauge that is looked for in it. */
export interface DialAsked {
	picture: ImageData;
	dial: GaugeDial;
	guess: DialGuess;
}

/** What the worker says of a picture. */
export type DialMessage = DialReading | DialRefusal;

addEventListener('message', ({ data }: MessageEvent<DialAsked>) => {
	const { picture, dial, guess } = data;
	const said: DialMessage = readDial(
		grayOf(picture.width, picture.height, picture.data),
		dial,
		guess
	);
	postMessage(said);
});
