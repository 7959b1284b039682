<script lang="ts">
	import Notice from '$lib/ui/form/Notice.svelte';
	import Label from '$lib/ui/register/Label.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Labels · Grevan</title></svelte:head>
<div class="no-print mb-5 flex flex-wrap items-center gap-4">
	<a class="linkish" href="/items">Items</a>
	<h1>{data.labels.length} {data.labels.length === 1 ? 'label' : 'labels'}</h1>
	<button class="button primary ml-auto" onclick={() => print()}>Print</button>
</div>
{#if data.missing.length}<div class="no-print mb-4">
		<Notice kind="caution"><p>Not in the register: {data.missing.join(', ')}.</p></Notice>
	</div>{/if}
{#if data.labels.length === 0}<p class="no-print">
		Choose items in the register first; their labels stand here to be printed.
	</p>{/if}
<div class="flex flex-wrap gap-4">
	{#each data.labels as label (label.tag)}
		<Label
			text={label.tag}
			lines={[`${label.model}, ${label.size}`, label.serial].filter(Boolean)}
			qr={label.qr}
			bar={label.bar}
		/>
	{/each}
</div>
