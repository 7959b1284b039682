<script lang="ts">
	import Notice from '$lib/ui/form/Notice.svelte';

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
		<article
			class="grid w-[70mm] break-inside-avoid grid-cols-[1fr_22mm] gap-3 rounded border-2 border-ink bg-white p-3 text-black"
			aria-label="Label of {label.tag}"
		>
			<div>
				<p class="font-mono text-[1.4rem] font-bold">{label.tag}</p>
				<p class="text-[0.95rem]">{label.model}, {label.size}</p>
				{#if label.serial}<p class="font-mono text-[0.85rem]">{label.serial}</p>{/if}
			</div>
			<div class="grid content-between gap-1 [&_svg]:h-auto [&_svg]:w-full">
				<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn on the server from the tag alone -->
				{@html label.qr}
				<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn on the server from the tag alone -->
				{@html label.bar}
			</div>
		</article>
	{/each}
</div>
