import { freshId } from '$lib/fresh-id';
import { sendJson, type SendJson } from './send-json';

/** Where the working copy of a thing stands. */
export type Kept = 'kept' | 'keeping' | 'changed' | 'unsent' | 'refused';

/** What is kept as it is typed. */
export interface Working<T> {
	/** Everything that is sent but for the version. */
	content: () => T;
	/** Why it cannot be kept yet; null where it can. */
	blocked: () => boolean;
	/** Where it goes. */
	url: () => string;
	/** It was kept for the first time. */
	made: () => void;
}

const SAVE_AFTER_MS = 700;
const RETRY_MS = 3000;

/**
 * Keeps a working copy on the server as it is typed: a moment after the last change, one sending at a time, again
 * until it arrives. A version that somebody else has overtaken is said and not written over.
 */
export class Autosave<T extends object> {
	state = $state<Kept>('kept');
	version = $state(0);
	message = $state<string | null>(null);
	/** The field that was refused, and why. */
	refusal = $state.raw<{ path: string; message: string } | null>(null);
	private timer: ReturnType<typeof setTimeout> | undefined;
	private attempt: { sent: string; requestId: string } | undefined;
	private readonly working: Working<T>;
	private readonly send: SendJson;

	constructor(working: Working<T>, version: number, send: SendJson = sendJson) {
		this.working = working;
		this.version = version;
		this.send = send;
	}

	/** Something was changed: it is kept in a moment. */
	touch(afterMs = SAVE_AFTER_MS): void {
		if (this.state === 'refused') return;
		if (this.state !== 'keeping') this.state = 'changed';
		clearTimeout(this.timer);
		this.timer = setTimeout(() => void this.save(), afterMs);
	}

	/** The page goes: what was changed is sent at once. */
	leave(): void {
		clearTimeout(this.timer);
		if (this.state === 'changed' || this.state === 'unsent') void this.save();
	}

	private async save(): Promise<void> {
		if (this.working.blocked()) return;
		if (this.state === 'keeping') return this.touch();
		this.state = 'keeping';
		const sent = JSON.stringify({ ...this.working.content(), version: this.version });
		// Sent again as it was, because no answer came, it goes under the same id.
		if (this.attempt?.sent !== sent) this.attempt = { sent, requestId: freshId() };
		const { requestId } = this.attempt;
		const answer = await this.send<{ version: number }>('PUT', this.working.url(), {
			...(JSON.parse(sent) as T),
			requestId
		});
		if (answer.kind === 'away') {
			this.state = 'unsent';
			this.timer = setTimeout(() => void this.save(), RETRY_MS);
		} else if (answer.kind === 'refused') {
			this.state = [401, 409].includes(answer.status) ? 'refused' : 'changed';
			this.message = answer.message;
			this.refusal = answer.path ? { path: answer.path, message: answer.message } : null;
		} else {
			const [first, before] = [this.version === 0, this.version];
			this.version = answer.value.version;
			this.message = null;
			this.refusal = null;
			this.state = 'kept';
			if (first) this.working.made();
			if (JSON.stringify({ ...this.working.content(), version: before }) !== sent) this.touch();
		}
	}
}
