/** Asks a worker one thing after the other. */
export class Asks<Asked, Answer> {
	private waiting: { told: (answer: Answer) => void; failed: (why: Error) => void } | null = null;

	constructor(private readonly worker: Worker) {
		worker.onmessage = ({ data }: MessageEvent<Answer>) => {
			const { waiting } = this;
			this.waiting = null;
			waiting?.told(data);
		};
		worker.onerror = (event) => {
			this.waiting?.failed(new Error(event.message));
			this.waiting = null;
		};
	}

	/** Says something that has no answer. */
	tell(said: Asked): void {
		this.worker.postMessage(said);
	}

	/**
	 * @param given what is handed over and gone here
	 * @throws Error where the worker failed
	 */
	ask(asked: Asked, given: Transferable[]): Promise<Answer> {
		return new Promise((told, failed) => {
			this.waiting = { told, failed };
			this.worker.postMessage(asked, given);
		});
	}

	/** What was asked last is never answered. */
	stop(): void {
		this.worker.terminate();
		this.waiting = null;
	}
}
