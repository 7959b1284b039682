/** Why there is no picture, said so that the person knows what to do. */
export class NoPicture extends Error {}

export interface OpenCamera {
	stream: MediaStream;
	/** Switches the lamp of the camera; null where it has none. */
	torch: ((on: boolean) => Promise<void>) | null;
	stop: () => void;
}

/** What a browser tells of a camera that has a lamp; not yet in the types of the language. */
type WithTorch = { torch?: boolean };

const REFUSED: Readonly<Record<string, string>> = {
	NotAllowedError: 'The camera was refused. Allow it in the browser.',
	NotReadableError: 'Another program holds the camera. Shut it there.'
};

/**
 * Opens the camera of this device, the one that looks away from its person where there are two, and asks for it where
 * that was not done yet. Nothing of it is kept or sent.
 * @param lost hears that the camera went away
 * @throws NoPicture where there is none or it was refused
 */
export async function openCamera(lost: () => void): Promise<OpenCamera> {
	if (!navigator.mediaDevices?.getUserMedia)
		throw new NoPicture('This device gives no camera here.');
	const stream = await navigator.mediaDevices
		.getUserMedia({
			video: { facingMode: 'environment', width: { ideal: 1280 }, height: { ideal: 720 } }
		})
		.catch((error: unknown) => {
			throw new NoPicture(REFUSED[(error as Error).name] ?? 'There is no camera.');
		});
	const [track] = stream.getVideoTracks();
	track?.addEventListener('ended', lost);
	const lamp = (track?.getCapabilities?.() as WithTorch | undefined)?.torch;
	return {
		stream,
		torch: lamp
			? async (on) => {
					await track?.applyConstraints({ advanced: [{ torch: on } as MediaTrackConstraintSet] });
				}
			: null,
		stop: () => {
			for (const one of stream.getTracks()) one.stop();
		}
	};
}

/** Pixels of the longer side of what is looked at; more only costs time. */
const LONGER = 1280;

/** Pixels of the side of a square that is looked at. */
const SQUARE = 480;

/**
 * What a video shows now; null while it shows nothing.
 * @param square only the square in its middle
 */
export function frameOf(
	video: HTMLVideoElement,
	into: HTMLCanvasElement,
	square: boolean
): ImageData | null {
	const { videoWidth, videoHeight } = video;
	if (!videoWidth || !videoHeight) return null;
	const side = Math.min(videoWidth, videoHeight);
	const [wide, tall] = square ? [side, side] : [videoWidth, videoHeight];
	const scale = Math.min(1, (square ? SQUARE : LONGER) / Math.max(wide, tall));
	const [width, height] = [Math.round(wide * scale), Math.round(tall * scale)];
	if (into.width !== width || into.height !== height) [into.width, into.height] = [width, height];
	const brush = into.getContext('2d', { willReadFrequently: true });
	if (!brush) return null;
	const [left, top] = [(videoWidth - wide) / 2, (videoHeight - tall) / 2];
	brush.drawImage(video, left, top, wide, tall, 0, 0, width, height);
	return brush.getImageData(0, 0, width, height);
}
