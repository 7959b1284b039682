import { prepareZXingModule } from 'zxing-wasm/reader';
import type { SightedCode } from '../core/scan/sight.ts';
import { codesIn } from './read-codes.ts';

/** What it is asked: first where the package's own part lies, then a picture after the other. */
export type LabelsAsked = { wasm: string } | { picture: ImageData };

/** What the worker says of a picture. */
export type LabelsMessage = { codes: SightedCode[] } | { fault: string };

const say = (message: LabelsMessage) => postMessage(message);

addEventListener('message', ({ data }: MessageEvent<LabelsAsked>) => {
	if ('wasm' in data) {
		// Comes with the app: nothing is fetched from elsewhere.
		prepareZXingModule({ overrides: { locateFile: () => data.wasm } });
		return;
	}
	codesIn(data.picture).then(
		(codes) => say({ codes }),
		(error: unknown) => say({ fault: error instanceof Error ? error.message : String(error) })
	);
});
