/**
 * Power of a piece of sound by frequency: a Hann window and a transform of radix two.
 * Published: J. W. Cooley and J. W. Tukey, Mathematics of Computation 19 (1965); window: F. J. Harris, Proceedings of
 * the IEEE 66 (1978); from memory.
 */
export class Spectrum {
	private readonly window: Float64Array;
	private readonly order: Uint32Array;
	private readonly cosines: Float64Array;
	private readonly sines: Float64Array;
	private readonly real: Float64Array;
	private readonly imaginary: Float64Array;

	/** @param size samples of a piece, a power of two */
	constructor(readonly size: number) {
		const bits = Math.log2(size);
		if (!Number.isInteger(bits) || bits < 2) throw new RangeError('size is a power of two from 4');
		this.window = Float64Array.from(
			{ length: size },
			(_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size)
		);
		this.order = Uint32Array.from({ length: size }, (_, i) => {
			let reversed = 0;
			for (let bit = 0; bit < bits; bit++) reversed |= ((i >> bit) & 1) << (bits - 1 - bit);
			return reversed;
		});
		this.cosines = Float64Array.from({ length: size / 2 }, (_, i) =>
			Math.cos((2 * Math.PI * i) / size)
		);
		this.sines = Float64Array.from({ length: size / 2 }, (_, i) =>
			Math.sin((2 * Math.PI * i) / size)
		);
		this.real = new Float64Array(size);
		this.imaginary = new Float64Array(size);
	}

	/**
	 * The power in each bin, in squares of the unit of the samples: a steady tone has a quarter of its squared amplitude
	 * in the bin nearest to it.
	 * @param at where the piece begins
	 * @param into half as many bins as samples
	 */
	powers(samples: Float32Array, at: number, into: Float64Array): void {
		const { size, window, order, real, imaginary } = this;
		for (let i = 0; i < size; i++) {
			real[order[i] ?? 0] = (samples[at + i] ?? 0) * (window[i] ?? 0);
			imaginary[i] = 0;
		}
		for (let half = 1; half < size; half *= 2) this.combine(half);
		// Half of the window is lost, and half of a real tone lies in the other half of the bins.
		const scale = 4 / (size * size);
		for (let k = 0; k < size / 2; k++) {
			const [a, b] = [real[k] ?? 0, imaginary[k] ?? 0];
			into[k] = (a * a + b * b) * scale;
		}
	}

	private combine(half: number): void {
		const { size, real, imaginary, cosines, sines } = this;
		const step = size / (2 * half);
		for (let from = 0; from < size; from += 2 * half)
			for (let k = 0; k < half; k++) {
				const [cos, sin] = [cosines[k * step] ?? 0, sines[k * step] ?? 0];
				const [i, j] = [from + k, from + k + half];
				const [a, b] = [real[j] ?? 0, imaginary[j] ?? 0];
				const [re, im] = [a * cos + b * sin, b * cos - a * sin];
				real[j] = (real[i] ?? 0) - re;
				imaginary[j] = (imaginary[i] ?? 0) - im;
				real[i] = (real[i] ?? 0) + re;
				imaginary[i] = (imaginary[i] ?? 0) + im;
			}
	}
}
