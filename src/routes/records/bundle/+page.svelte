<script lang="ts">
	/** Everything of a period in one file, for whoever audits. */
	import DayField from '$lib/ui/form/DayField.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import TakeFile from '$lib/ui/records/TakeFile.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Bundle for an audit · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/records">Records</a></p>
<h1>Bundle for an audit</h1>
<p class="mt-1 max-w-[46rem]">
	Everything of a period in one file: each inspection, bench test, repair, fill, test of air, fit
	test, exam, hand-out and wash as a paper (PDF), each register as a table (CSV), and the SHA-256 of
	each file. That it was taken is recorded.
</p>
{#if !data.mayTake}<div class="mt-4">
		<Notice><p>It holds who wore what: a technician takes it.</p></Notice>
	</div>
{:else}
	<TakeFile action="/records/bundle.zip" words="Write and take it">
		{#snippet fields()}
			<DayField name="from" label="From" value={data.from} max={data.today} required />
			<DayField name="to" label="To" value={data.to} max={data.today} required />
		{/snippet}
		{#snippet taken()}Its <span class="font-mono">read-me.txt</span> says what is in it and how a paper
			is held against the record.{/snippet}
	</TakeFile>
{/if}
