<script lang="ts">
	/** A drill that ended, with each miss and what it was. */
	import Debrief from '$lib/ui/drill/Debrief.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { siteMoment } from '$lib/ui/time/moments';

	let { data } = $props();
	const { session } = $derived(data);
</script>

<svelte:head><title>Drill of {data.by} · Grevan</title></svelte:head>
<div class="mt-3 flex flex-wrap items-baseline gap-x-4">
	<h1>{session.mode === 'exam' ? 'Exam' : 'Drill'}: {data.procedure.name}</h1>
	<p class="text-soft">{data.by}, {siteMoment(session.endedAt)}</p>
	{#if session.mode === 'exam'}<a
			class="linkish ml-auto inline-flex min-h-11 items-center"
			href="/drill/sessions/{session.id}/certificate.pdf"
			data-sveltekit-reload>Paper of the exam (PDF)</a
		>{/if}
</div>
{#if session.mode === 'exam'}<div class="my-3">
		<Notice kind={session.passed ? 'good' : 'refusal'}
			><p><b>{session.passed ? 'Passed' : 'Not passed'}.</b> {data.why} Beside {data.beside}.</p>
			{#if session.passed && data.mayAuthorise}<p>
					<a class="linkish" href="/people/competence?exam={session.id}">Give the authorisation</a>,
					with this exam as its evidence.
				</p>{/if}</Notice
		>
	</div>{/if}
<Debrief
	procedure={data.procedure}
	handed={session.handed}
	score={session.score}
	medianSeconds={data.medianSeconds}
	others={data.othersSaid}
/>
