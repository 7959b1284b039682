import { deflateRawSync, inflateRawSync } from 'node:zlib';
import type { TraceSample } from '../../../core/bench/trace.ts';

/** Columns of a trace; a value that was not sent is null. */
interface Columns {
	s: number[];
	pa: number[];
	temperatureC: (number | null)[];
	barometerPa: (number | null)[];
}

/** Packs a trace without loss: each column as the numbers that were read, deflated together. */
export function packTrace(samples: readonly TraceSample[]): Buffer {
	const columns: Columns = {
		s: samples.map((x) => x.s),
		pa: samples.map((x) => x.pa),
		temperatureC: samples.map((x) => x.temperatureC ?? null),
		barometerPa: samples.map((x) => x.barometerPa ?? null)
	};
	return deflateRawSync(JSON.stringify(columns), { level: 9 });
}

/** The readings of a packed trace. */
export function unpackTrace(bytes: Uint8Array): TraceSample[] {
	const { s, pa, temperatureC, barometerPa } = JSON.parse(
		inflateRawSync(bytes).toString('utf8')
	) as Columns;
	return s.map((second, i): TraceSample => {
		const [t, b] = [temperatureC[i], barometerPa[i]];
		return {
			s: second,
			pa: pa[i] ?? NaN,
			...(typeof t === 'number' ? { temperatureC: t } : {}),
			...(typeof b === 'number' ? { barometerPa: b } : {})
		};
	});
}
