import { personHeaders } from './person';

export type ProofBy = 'pin' | 'password' | 'code';

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
	/** The session ended: they sign in again, where they stand. */
	signIn: boolean;
	done: (proven: boolean) => void;
}

/**
 * Asks the person of the page to show that it is them, one question at a time: whoever else needs it meanwhile waits
 * for the same answer.
 */
class Proof {
	question = $state.raw<Question | null>(null);
	private waiting: Promise<boolean> | null = null;
	private person = '';

	/** Before a signature. @returns whether they did; not where they turned away */
	ask(asked: Asked): Promise<boolean> {
		return this.open({
			by: asked.path === 'password' ? 'password' : 'pin',
			message: asked.message,
			signIn: false
		});
	}

	/** Where the session ended. @returns whether they are in again */
	askIn(person: { id: string }): Promise<boolean> {
		this.person = person.id;
		return this.open({
			by: 'pin',
			message:
				'Your session has ended. What you gave waits on this device; sign in and it goes on.',
			signIn: true
		});
	}

	private open(asked: Omit<Question, 'done'>): Promise<boolean> {
		this.waiting ??= new Promise<boolean>((resolve) => {
			this.question = { ...asked, done: resolve };
		}).finally(() => {
			this.question = null;
			this.waiting = null;
		});
		return this.waiting;
	}

	/** Shows it to the server. @returns why not, null where it did */
	async give(by: ProofBy, secret: string): Promise<string | null> {
		const { question } = this;
		if (!question) return null;
		try {
			const response = await fetch(question.signIn ? '/api/sign-in' : '/api/proof', {
				method: 'POST',
				headers: {
					'content-type': 'application/json',
					...(question.signIn ? {} : personHeaders())
				},
				body: JSON.stringify({ by, secret, ...(question.signIn && { person: this.person }) })
			});
			const said = (await response.json().catch(() => null)) as {
				message?: string;
				code?: boolean;
			} | null;
			if (!response.ok || !said) return said?.message ?? 'The server failed. Try again.';
			// With a second step, the code of the authenticator comes after the password.
			if (said.code) this.question = { ...question, by: 'code' };
			else question.done(true);
			return null;
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
