<script lang="ts">
	/** Models side by side: what differs stands out, what is alike stays quiet. */
	let { data } = $props();
	let all = $state(false);
	const shown = $derived(data.lines.filter((line) => all || line.differs));
</script>

<svelte:head><title>Models compared · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/items/models">Models</a></p>
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<h1>Compared</h1>
	<label class="ml-auto flex min-h-11 items-center gap-2"
		><input type="checkbox" bind:checked={all} />also what is alike</label
	>
</div>
<div class="mt-3 overflow-x-auto">
	<table class="w-full min-w-[40rem] table-fixed border-collapse">
		<thead>
			<tr class="border-b-2 border-ink text-left">
				<th class="w-48 py-2 pr-4 font-normal text-soft" scope="col">What is said of it</th>
				{#each data.models as model (model.id)}<th class="py-2 pr-4" scope="col"
						><a class="linkish" href="/items/models/{model.id}">{model.name}</a></th
					>{/each}
			</tr>
		</thead>
		<tbody>
			{#each shown as line (line.label)}
				<tr class="border-b border-rule align-top">
					<th class="py-2 pr-4 text-left font-normal text-soft" scope="row">{line.label}</th>
					{#each line.values as value, i (i)}<td
							class={['py-2 pr-4', line.differs && 'font-semibold']}>{value || '–'}</td
						>{/each}
				</tr>
			{/each}
		</tbody>
	</table>
</div>
{#if shown.length === 0}<p class="mt-3">They differ in nothing but their names.</p>{/if}
