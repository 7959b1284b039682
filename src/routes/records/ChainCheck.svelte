<script lang="ts">
	/** Walks the chain of the log, says how far it is, and then whether all is as it was. */
	import { onMount } from 'svelte';
	import { freshId } from '$lib/fresh-id';
	import Notice from '$lib/ui/form/Notice.svelte';
	import ProgressLine from '$lib/ui/form/ProgressLine.svelte';
	import { TaskProgress } from '$lib/ui/form/task-progress.svelte';
	import { personHeaders } from '$lib/ui/shell/person';

	interface Check {
		entries: number;
		records: number;
		head: string;
		faults: { where: string; text: string }[];
		anchors: number;
		anchoredTo: number;
		unhashed: number;
	}
	let check = $state.raw<Check | null>(null);
	let refusal = $state<string | null>(null);
	const task = new TaskProgress();
	const figure = (n: number) => n.toLocaleString('en-GB');

	onMount(() => {
		const id = freshId();
		const end = task.follow(id);
		void walk(id).finally(end);
		return end;
	});
	async function walk(id: string) {
		const answer = await fetch(`/api/records/check?id=${id}`, { headers: personHeaders() }).catch(
			() => null
		);
		if (answer?.ok) check = (await answer.json()) as Check;
		else
			refusal =
				((await answer?.json().catch(() => null)) as { message?: string } | null)?.message ??
				'The check broke off. Try again.';
	}
</script>

<div class="mt-4" aria-live="polite">
	{#if refusal}<Notice kind="refusal"><p>{refusal}</p></Notice>
	{:else if !check}<ProgressLine progress={task.progress} waiting="Checking the chain …" />
	{:else if check.faults.length}<Notice kind="refusal"
			><p>
				<b>The record is not as it was.</b> Tell the one who keeps the system, and copy nothing over it.
			</p>
			<ul class="mt-1 list-disc pl-5">
				{#each check.faults as fault, i (i)}<li>
						<span class="font-mono">{fault.where}</span>: {fault.text}
					</li>{/each}
			</ul></Notice
		>
	{:else}<Notice kind="good"
			><p>
				All {figure(check.entries)} entries follow from one another, and {figure(check.records)} records
				are as they were made whole. The end of the chain:
				<span class="font-mono break-all">{check.head}</span>
			</p>
			<p class="text-soft">
				{check.anchors
					? `Its end was signed ${check.anchors} times, up to entry ${figure(check.anchoredTo)}.`
					: 'Its end is not signed yet: that is done each minute.'}
				{check.unhashed
					? `${figure(check.unhashed)} records are from before hashes were kept.`
					: ''}
			</p></Notice
		>{/if}
</div>
