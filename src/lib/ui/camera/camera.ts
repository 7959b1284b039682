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
	NotAllowedError: 'The camera was refused. Allow it in the browser, or type what the label says.',
	NotReadableError: 'Another program holds the camera. Shut it there, or type what the label says.'
};

/**
 * Opens the camera of this device, the one that looks away from its person where there are two, and asks for it where
 * that was not done yet. Nothing of it is kept or sent.
 * @param lost hears that the camera went away
 * @throws NoPicture where there is none or it was refused
 */
export async function openCamera(lost: () => void): Promise<OpenCamera> {
	if (!navigator.mediaDevices?.getUserMedia)
		throw new NoPicture('This device gives no camera here. Type what the label says.');
	const stream = await navigator.mediaDevices
		.getUserMedia({
			video: { facingMode: 'environment', width: { ideal: 1280 }, height: { ideal: 720 } }
		})
		.catch((error: unknown) => {
			throw new NoPicture(
				REFUSED[(error as Error).name] ?? 'There is no camera. Type what the label says.'
			);
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

/** What a video shows now; null while it shows nothing. */
export function frameOf(video: HTMLVideoElement, into: HTMLCanvasElement): ImageData | null {
	const { videoWidth, videoHeight } = video;
	if (!videoWidth || !videoHeight) return null;
	const scale = Math.min(1, LONGER / Math.max(videoWidth, videoHeight));
	const [width, height] = [Math.round(videoWidth * scale), Math.round(videoHeight * scale)];
	if (into.width !== width || into.height !== height) [into.width, into.height] = [width, height];
	const brush = into.getContext('2d', { willReadFrequently: true });
	if (!brush) return null;
	brush.drawImage(video, 0, 0, width, height);
	return brush.getImageData(0, 0, width, height);
}
