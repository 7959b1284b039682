<script lang="ts">
	/** An exam: walked once, judged by the server. */
	import { goto } from '$app/navigation';
	import type { DrillAnswer } from '$core/drill/score';
	import { freshId } from '$lib/fresh-id';
	import DrillRun from '$lib/ui/drill/DrillRun.svelte';
	import { outbox } from '$lib/ui/outbox/outbox.svelte';

	let { data } = $props();
	let sent = $state(false);
	$effect(() =>
		outbox.listen(
			({ about }) => {
				if (about === `drill:${data.id}`) void goto(`/drill/sessions/${data.id}`);
			},
			() => {}
		)
	);

	function end(answers: DrillAnswer[]) {
		sent = true;
		const id = freshId();
		outbox.put({
			id,
			about: `drill:${data.id}`,
			name: 'Exam',
			says: data.procedure.name,
			url: '/api/drill/exams',
			body: { id, examId: data.id, answers }
		});
	}
</script>

<svelte:head><title>Exam, {data.procedure.name} · Grevan</title></svelte:head>
<h1 class="mt-3">Exam: {data.procedure.name}</h1>
{#if sent}<p class="mt-4 text-[1.2rem]" role="status">
		{outbox.link === 'live'
			? 'Being judged.'
			: 'Kept on this device; it is judged when the server is back.'}
	</p>
{:else}<DrillRun
		id={data.id}
		procedure={data.procedure}
		handed={data.handed}
		mode="exam"
		onend={end}
	/>{/if}
