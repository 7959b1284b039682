// Hands the sound of a microphone on, piece by piece, and keeps none of it.
registerProcessor(
	'capture',
	class extends AudioWorkletProcessor {
		process([input]) {
			const [channel] = input;
			if (channel?.length) this.port.postMessage(channel.slice());
			return true;
		}
	}
);
