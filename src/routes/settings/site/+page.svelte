<script lang="ts">
	import HistoryList from '$lib/ui/records/HistoryList.svelte';
	import BasicsForm from '$lib/ui/site/BasicsForm.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Site · Grevan</title></svelte:head>
{#key data.version}<BasicsForm
		filled={data.filled}
		version={data.version}
		timeZones={data.timeZones}
		button="Keep these"
	/>{/key}
<p class="mt-6 max-w-[40rem]">
	<a class="button" href="/settings/site/file" download>Settings as a file</a>
	<span class="text-soft mt-2 block"
		>Rules, places and floors, models, intervals, calendar and test houses: another site starts with
		them. Neither people nor what is in the register.</span
	>
</p>
<section aria-labelledby="changes" class="mt-8">
	<h2 id="changes">What was changed</h2>
	{#if data.lines.length === 0}<p class="mt-1">Nothing yet.</p>{/if}
	<HistoryList lines={data.lines} />
</section>
