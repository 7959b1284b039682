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
<section aria-labelledby="changes" class="mt-8">
	<h2 id="changes">What was changed</h2>
	{#if data.lines.length === 0}<p class="mt-1">Nothing yet.</p>{/if}
	<HistoryList lines={data.lines} />
</section>
