/** A sound as a WAV file: one channel, 16 bits, PCM. Published: Microsoft and IBM, Multimedia Programming Interface 1.0; from memory. */
export function wavOf(samples: Float32Array, sampleRate: number): Buffer {
	const bytes = Buffer.alloc(44 + samples.length * 2);
	bytes.write('RIFF', 0, 'latin1');
	bytes.writeUInt32LE(36 + samples.length * 2, 4);
	bytes.write('WAVEfmt ', 8, 'latin1');
	bytes.writeUInt32LE(16, 16);
	bytes.writeUInt16LE(1, 20);
	bytes.writeUInt16LE(1, 22);
	bytes.writeUInt32LE(sampleRate, 24);
	bytes.writeUInt32LE(sampleRate * 2, 28);
	bytes.writeUInt16LE(2, 32);
	bytes.writeUInt16LE(16, 34);
	bytes.write('data', 36, 'latin1');
	bytes.writeUInt32LE(samples.length * 2, 40);
	samples.forEach((value, i) =>
		bytes.writeInt16LE(Math.round(Math.max(-1, Math.min(1, value)) * 32_767), 44 + 2 * i)
	);
	return bytes;
}
