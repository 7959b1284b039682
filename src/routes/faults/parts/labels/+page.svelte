<script lang="ts">
	import { readable } from '$core/plan/calendar';
	import Label from '$lib/ui/register/Label.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Labels of lots · Grevan</title></svelte:head>
<div class="no-print mb-5 flex flex-wrap items-center gap-4">
	<a class="linkish" href="/faults/parts">Parts store</a>
	<h1>{data.labels.length} {data.labels.length === 1 ? 'label' : 'labels'}</h1>
	<button class="button primary ml-auto" onclick={() => print()}>Print</button>
</div>
{#if data.labels.length === 0}<p class="no-print">No lot of these is in the store.</p>{/if}
<div class="flex flex-wrap gap-4">
	{#each data.labels as lot (lot.id)}<Label
			text={lot.lot}
			lines={[lot.name, lot.useBy ? `use by ${readable(lot.useBy)}` : '', lot.location].filter(
				Boolean
			)}
			qr={lot.qr}
			bar={lot.bar}
		/>{/each}
</div>
