/** How far something long is, as the server tells it; asked for while it runs. */
export interface Progress {
	done: number;
	total: number;
	cancelled: boolean;
}

const ASK_MS = 500;

/** Follows a task by the id that the page made for it. */
export class TaskProgress {
	progress = $state<Progress | null>(null);

	/** Asks from now on. @returns what ends it */
	follow(id: string): () => void {
		const ask = async () => {
			const answer = await fetch(`/api/imports/${id}`).catch(() => null);
			this.progress = answer?.ok
				? ((await answer.json()) as { progress: Progress | null }).progress
				: null;
		};
		const timer = setInterval(() => void ask(), ASK_MS);
		return () => {
			clearInterval(timer);
			this.progress = null;
		};
	}
}
