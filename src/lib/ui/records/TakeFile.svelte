<script lang="ts">
	/** Asks for a large file, says how far it is, and keeps it; sent by script, so that a refusal stays on the page. */
	import type { Snippet } from 'svelte';
	import { freshId } from '$lib/fresh-id';
	import { personHeaders } from '$lib/ui/shell/person';
	import { asksProof, proof } from '$lib/ui/shell/proof.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import ProgressLine from '$lib/ui/form/ProgressLine.svelte';
	import { TaskProgress } from '$lib/ui/form/task-progress.svelte';

	interface Props {
		action: string;
		/** What the key says. */
		words: string;
		/** What is asked beside. */
		fields?: Snippet;
		/** What is said of the file once it is here. */
		taken: Snippet;
	}
	let { action, words, fields, taken }: Props = $props();
	let stage = $state<'ready' | 'writing' | 'done'>('ready');
	let refusal = $state<string | null>(null);
	let size = $state(0);
	let stopper: AbortController | null = null;
	const task = new TaskProgress();

	async function take(event: SubmitEvent) {
		event.preventDefault();
		const body = new FormData(event.currentTarget as HTMLFormElement);
		const id = freshId();
		body.set('id', id);
		[stage, refusal] = ['writing', null];
		stopper = new AbortController();
		const end = task.follow(id);
		try {
			const answer = await sent(body, stopper.signal);
			if (typeof answer === 'string') {
				[stage, refusal] = ['ready', answer];
				return;
			}
			const file = await answer.blob();
			size = file.size;
			const given = /filename="([^"]+)"/.exec(answer.headers.get('content-disposition') ?? '')?.[1];
			keep(file, given ?? 'grevan.zip');
			stage = 'done';
		} catch {
			refusal = stopper.signal.aborted
				? 'Stopped. Nothing was kept.'
				: 'It broke off before its end. Try again.';
			stage = 'ready';
		} finally {
			end();
		}
	}
	/** The answer, or why there is none; who has to show first that it is them is asked. */
	async function sent(body: FormData, signal: AbortSignal): Promise<Response | string> {
		const answer = await fetch(action, {
			method: 'post',
			body,
			signal,
			headers: personHeaders()
		});
		if (answer.ok) return answer;
		const refused = (await answer.json()) as { message?: string };
		if (asksProof(refused) && (await proof.ask(refused))) return sent(body, signal);
		return refused.message ?? 'It was refused.';
	}
	function keep(file: Blob, name: string) {
		const link = document.createElement('a');
		link.href = URL.createObjectURL(file);
		link.download = name;
		link.click();
		URL.revokeObjectURL(link.href);
	}
</script>

<form method="post" {action} class="mt-4 flex flex-wrap items-end gap-x-4 gap-y-3" onsubmit={take}>
	{@render fields?.()}
	<button class="button primary" disabled={stage === 'writing'}
		>{stage === 'writing' ? 'Writing …' : words}</button
	>
</form>
<div class="mt-4 max-w-[46rem]">
	{#if refusal}<Notice kind="refusal"><p role="status">{refusal}</p></Notice>{/if}
	{#if stage === 'writing'}<ProgressLine
			progress={task.progress}
			waiting="Looking what there is …"
			stop="Stop"
			onstop={() => stopper?.abort()}
		/>{/if}
	{#if stage === 'done'}<Notice kind="good"
			><p role="status">Taken, {(size / 1e6).toFixed(1)} MB. {@render taken()}</p></Notice
		>{/if}
</div>
