import { freshId } from '$lib/fresh-id';
import { personHeaders } from '$lib/ui/shell/person';
import { outbox } from '$lib/ui/outbox/outbox.svelte';
import { remember } from '$lib/ui/outbox/store';
import type { Procedure } from '$core/inspection/procedure';
import { answerText } from './answer-text';
import { asGiven, type Hold, type RunSender } from './session.svelte';

/**
 * Sends what is answered in a run to the server, by way of this device.
 * @param run its id, the tag and the list that say what something was where it is refused, and who is here
 * @param changed called when the server has something new to show
 */
export function outboxSender(
	run: { id: string; tag: string; procedure: Procedure; person: string },
	changed: () => Promise<void>
): RunSender {
	const mine = $derived(outbox.waiting.filter((parcel) => parcel.about === run.id));
	const waiting = $derived(
		mine.filter(({ body }) => 'value' in body).map(({ body }) => asGiven(body))
	);
	const put = (path: string, says: string, body: Record<string, unknown>, last = false) => {
		const id = freshId();
		outbox.put({
			id,
			about: run.id,
			name: run.tag,
			says,
			url: `/api/runs/${run.id}/${path}`,
			body: { id, ...body },
			last
		});
	};
	return {
		get waiting() {
			return waiting;
		},
		get signing() {
			return mine.some((parcel) => parcel.last);
		},
		answer: (answer) => put('answers', answerText(run.procedure, answer), { ...answer }),
		sign: () => put('sign', 'Signature under the inspection', {}, true),
		async hold(step, start) {
			const response = await fetch(`/api/runs/${run.id}/timer`, {
				method: 'POST',
				headers: { 'content-type': 'application/json', ...personHeaders() },
				body: JSON.stringify({ id: freshId(), step, start })
			}).catch(() => null);
			if (!response || response.status >= 500) return undefined;
			const refused = response.ok ? null : ((await response.json()) as { message: string }).message;
			await changed();
			return refused;
		},
		ownHold: (hold: Hold | null) => void remember(run.person, `hold:${run.id}`, hold && { ...hold })
	};
}
