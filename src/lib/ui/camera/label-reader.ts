import wasm from 'zxing-wasm/reader/zxing_reader.wasm?url';
import type { SightedCode } from '$core/scan/sight';
import type { LabelsAsked, LabelsMessage } from '../../../workers/labels';
import { Asks } from './asks';

/** Reads the labels in pictures, one picture after the other, beside the page. */
export class LabelReader {
	private constructor(private readonly asks: Asks<LabelsAsked, LabelsMessage>) {
		asks.tell({ wasm });
	}

	static async open(): Promise<LabelReader> {
		const { default: Labels } = await import('../../../workers/labels.ts?worker');
		return new LabelReader(new Asks(new Labels()));
	}

	/** @throws Error where the picture could not be looked at */
	async read(picture: ImageData): Promise<SightedCode[]> {
		const said = await this.asks.ask({ picture }, [picture.data.buffer]);
		if ('fault' in said) throw new Error(said.fault);
		return said.codes;
	}

	stop(): void {
		this.asks.stop();
	}
}
