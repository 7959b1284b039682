import type { PlanAsked, PlanMessage } from '../../../workers/plan';

/** Something that is worked out in a worker: begun, told how far, and stopped; a new one ends the one before. */
export class PlanRunner {
	running = $state(false);
	failed = $state(false);
	private worker: Worker | undefined;

	async start(asked: PlanAsked, hear: (message: PlanMessage) => void): Promise<void> {
		this.stop();
		this.running = true;
		this.failed = false;
		const { default: PlanWorker } = await import('../../../workers/plan.ts?worker');
		// Stopped again before it had come.
		if (!this.running) return;
		const worker = new PlanWorker();
		this.worker = worker;
		worker.onmessage = (event: MessageEvent<PlanMessage>) => {
			hear(event.data);
			if (['planned', 'forecast', 'year'].includes(event.data.kind)) this.stop();
		};
		worker.onerror = () => {
			this.failed = true;
			this.stop();
		};
		worker.postMessage(asked);
	}

	stop(): void {
		this.worker?.terminate();
		this.worker = undefined;
		this.running = false;
	}
}
