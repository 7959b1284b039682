<script lang="ts">
	import { readable } from '$core/plan/calendar';
	import TableImport from '$lib/ui/register/TableImport.svelte';
	import { FAULT_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>Spare parts · Grevan</title></svelte:head>
<h1>Spare parts</h1>
<div class="mt-2"><SectionLinks label="Faults" links={FAULT_LINKS} /></div>
<div class="mt-4 grid gap-x-12 gap-y-8 lg:grid-cols-2">
	<section aria-labelledby="there">
		<h2 id="there">In the store</h2>
		{#if data.parts.length === 0}<p class="mt-1">
				None yet. A repair names the lot of each part that it uses; take them in from a table.
			</p>{/if}
		<ul>
			{#each data.parts as part (part.part)}
				{#each part.lots as lot, i (lot.id)}
					<li class="rowline grid min-h-11 grid-cols-[12rem_1fr_auto] items-center gap-x-4">
						<b>{i === 0 ? part.name : ''}</b>
						<span
							><span class="font-mono">{lot.lot}</span>
							<span
								class={lot.useBy && lot.useBy < data.asOf ? 'font-semibold text-held' : 'text-soft'}
								>{lot.useBy ? `until ${readable(lot.useBy)}` : 'keeps'}{lot.location
									? ` · ${lot.location}`
									: ''}</span
							></span
						>
						<span class="font-mono text-[1.1rem] font-semibold">{lot.quantity}</span>
					</li>
				{/each}
			{/each}
		</ul>
	</section>
	{#if data.mayKeep}
		<section aria-labelledby="in">
			<h2 id="in">Take parts in from a table</h2>
			<p class="mt-1">
				A row for each lot: <span class="font-mono">part, lot, quantity</span> and, where it is
				printed, <span class="font-mono">use by</span>.
			</p>
			<TableImport kind="parts" noun="lots" {form} last={data.last}>
				{#snippet done()}They stand on the left.{/snippet}
			</TableImport>
		</section>
	{/if}
</div>
