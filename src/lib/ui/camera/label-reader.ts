import wasm from 'zxing-wasm/reader/zxing_reader.wasm?url';
import type { SightedCode } from '$core/scan/sight';
import type { LabelsAsked, LabelsMessage } from '../../../workers/labels';

/** Reads the labels in pictures, one picture after the other, beside the page. */
export class LabelReader {
	private answer: { told: (codes: SightedCode[]) => void; failed: (why: Error) => void } | null =
		null;

	private constructor(private readonly worker: Worker) {
		this.ask({ wasm });
		worker.onmessage = ({ data }: MessageEvent<LabelsMessage>) => {
			const waiting = this.answer;
			this.answer = null;
			if ('fault' in data) waiting?.failed(new Error(data.fault));
			else waiting?.told(data.codes);
		};
		worker.onerror = (event) => {
			this.answer?.failed(new Error(event.message));
			this.answer = null;
		};
	}

	static async open(): Promise<LabelReader> {
		const { default: Labels } = await import('../../../workers/labels.ts?worker');
		return new LabelReader(new Labels());
	}

	/** @throws Error where the picture could not be looked at */
	read(picture: ImageData): Promise<SightedCode[]> {
		return new Promise((told, failed) => {
			this.answer = { told, failed };
			this.ask({ picture }, [picture.data.buffer]);
		});
	}

	private ask(asked: LabelsAsked, given: Transferable[] = []): void {
		this.worker.postMessage(asked, given);
	}

	stop(): void {
		this.worker.terminate();
		this.answer?.told([]);
		this.answer = null;
	}
}
