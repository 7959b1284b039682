import { personHeaders } from './person';

export type ProofBy = 'pin' | 'password';

/** What a page is told when its person has to show first that it is them. */
interface Asked {
	kind?: string | undefined;
	path?: string | undefined;
	message: string;
}

/** A question that is open: what it is for, and who waits for it. */
interface Question {
	by: ProofBy;
	message: string;
	done: (proven: boolean) => void;
}

/**
 * Asks the person of the page to show that it is them, one question at a time: whoever else needs it meanwhile waits
 * for the same answer.
 */
class Proof {
	question = $state.raw<Question | null>(null);
	private waiting: Promise<boolean> | null = null;

	/** @returns whether they did; not where they turned away */
	ask(asked: Asked): Promise<boolean> {
		this.waiting ??= new Promise<boolean>((resolve) => {
			this.question = {
				by: asked.path === 'password' ? 'password' : 'pin',
				message: asked.message,
				done: resolve
			};
		}).finally(() => {
			this.question = null;
			this.waiting = null;
		});
		return this.waiting;
	}

	/** Shows it to the server. @returns why not, null where it did */
	async give(by: ProofBy, secret: string): Promise<string | null> {
		try {
			const response = await fetch('/api/proof', {
				method: 'POST',
				headers: { 'content-type': 'application/json', ...personHeaders() },
				body: JSON.stringify({ by, secret })
			});
			if (response.ok) {
				this.question?.done(true);
				return null;
			}
			const said = (await response.json().catch(() => null)) as { message?: string } | null;
			return said?.message ?? 'The server failed. Try again.';
		} catch {
			return 'The server could not be reached. Try again.';
		}
	}

	turnAway(): void {
		this.question?.done(false);
	}
}

export const proof = new Proof();

/** Whether a refusal asks for a proof. */
export const asksProof = (refusal: unknown): refusal is Asked =>
	(refusal as Asked | null | undefined)?.kind === 'proof';
