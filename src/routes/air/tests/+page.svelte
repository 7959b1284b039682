<script lang="ts">
	/** Where breathing air comes from, and whether it may be given out. */
	import { freshId } from '$lib/fresh-id';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { SOURCE_MARKS } from '$lib/ui/air/marks';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const id = freshId();
</script>

<svelte:head><title>Air tests · Grevan</title></svelte:head>
<div class="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_20rem]">
	<section aria-labelledby="sources">
		<h2 id="sources">Sources of air</h2>
		{#if data.sources.length === 0}<p class="mt-1">
				None yet. Add the compressor or the banks with the form; then enter their air test.
			</p>{/if}
		<ul>
			{#each data.sources as { source, state } (source.id)}
				<li class="rowline">
					<a
						href="/air/tests/{source.id}"
						class="flex min-h-14 flex-wrap items-center gap-x-4 py-2 no-underline hover:bg-tint"
					>
						<StateMark state={SOURCE_MARKS[state.outcome]} size={22} />
						<b class="text-[1.1rem]">{source.name}</b>
						<span>{state.reasons[0]?.text}</span>
						<span class="text-soft ml-auto"
							>{source.kind === 'compressor'
								? source.oilLubricated
									? 'oil-lubricated compressor'
									: 'compressor without oil'
								: 'banks'}{source.banks.length ? `, ${source.banks.length} banks` : ''}</span
						>
					</a>
				</li>
			{/each}
		</ul>
		<p class="text-soft mt-3 max-w-[46rem]">
			Air is tested quarterly at least, and after any work on the compressor. Without a test in
			force nothing is filled and no airline is breathed from.
		</p>
	</section>
	{#if data.mayAdd}
		<form method="post" class="grid gap-4 self-start rounded border-2 border-ink bg-sheet p-4">
			<h2 class="text-[1.1rem]! text-ink!">Another source</h2>
			<input type="hidden" name="id" value={id} />
			<PlainField label="Name" name="name" required />
			<label
				><span class="label">What it is</span><select name="kind" class="w-full"
					><option value="compressor">compressor</option><option value="banks"
						>banks that come full</option
					></select
				></label
			>
			<label class="flex min-h-11 items-center gap-3"
				><input type="checkbox" name="oil" /> oil-lubricated</label
			>
			<label class="flex min-h-11 items-center gap-3"
				><input type="checkbox" name="fills" /> fills cylinders at the panel</label
			>
			<PlainField label="Banks, litres of water each" name="banks" placeholder="50 50 50" mono />
			<FormRefusal {refusal} />
			<button class="button">Add</button>
		</form>
	{/if}
</div>
