/** Samples a second that listening needs: whistles lie below 5 kHz. */
const RATE = 16_000;

/** Why there is no sound, said so that the person knows what to do. */
export class NoSound extends Error {}

export interface Listening {
	sampleRate: number;
	stop: () => void;
}

/**
 * Opens the microphone of this device, asks for it where that was not done yet, and hands its sound on. Nothing of it
 * is kept or sent.
 * @throws NoSound where there is none or it was refused
 */
export async function openMicrophone(
	onsamples: (samples: Float32Array) => void
): Promise<Listening> {
	if (!navigator.mediaDevices?.getUserMedia)
		throw new NoSound(
			'This device gives no microphone here. Listen yourself, and type the figure.'
		);
	const stream = await navigator.mediaDevices
		.getUserMedia({
			// What is made for speech takes a whistle for noise.
			audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false }
		})
		.catch((error: unknown) => {
			throw new NoSound(
				(error as Error).name === 'NotAllowedError'
					? 'The microphone was refused. Allow it in the browser, or listen yourself and type the figure.'
					: 'There is no microphone. Listen yourself, and type the figure.'
			);
		});
	const context = contextFor();
	const stop = () => {
		for (const track of stream.getTracks()) track.stop();
		void context.close();
	};
	try {
		await context.audioWorklet.addModule('/capture.js');
		const capture = new AudioWorkletNode(context, 'capture', { numberOfOutputs: 0 });
		capture.port.onmessage = (event: MessageEvent<Float32Array>) => onsamples(event.data);
		context.createMediaStreamSource(stream).connect(capture);
		await context.resume();
	} catch {
		stop();
		throw new NoSound('The sound of the microphone cannot be read here. Listen yourself.');
	}
	return { sampleRate: context.sampleRate, stop };
}

/** One at the rate that is enough, or at the device's own where it gives no other. */
function contextFor(): AudioContext {
	try {
		return new AudioContext({ sampleRate: RATE });
	} catch {
		return new AudioContext();
	}
}
