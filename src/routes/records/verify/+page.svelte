<script lang="ts">
	/** A paper is held against the record: by the line at its foot, or its code. */
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { hrefOf } from '$lib/ui/records/hrefs';
	import { siteMoment } from '$lib/ui/time/moments';

	let { data } = $props();
</script>

<svelte:head><title>Is this paper true? · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/records">Records</a></p>
<h1>Is this paper true?</h1>
<p class="mt-1 max-w-[46rem]">
	Every paper has a line at its foot: the number of an entry and the beginning of its hash. Type
	both, or scan its code. What the paper says is then shown as the record has it: compare them.
</p>
<form method="get" class="mt-4 flex flex-wrap items-end gap-3">
	<label class="grow sm:max-w-[32rem]"
		><span class="label">Entry and hash</span><input
			name="paper"
			value={data.paper}
			maxlength="100"
			autocomplete="off"
			spellcheck="false"
			class="w-full font-mono"
			placeholder="2078, 026aabeab74b304f"
		/></label
	>
	<button class="button primary">Look</button>
</form>
{#if data.refusal}<p class="mt-2 font-semibold text-held" role="alert">{data.refusal}</p>{/if}
{#if data.found}
	<div class="mt-6" role="status">
		{#each data.found as one (one.seq)}
			{@const link = one.links.map(hrefOf).find(Boolean)}
			<section class="mb-4 rounded border-2 border-ink bg-sheet p-4" aria-label="Entry {one.seq}">
				<h2 class="flex items-center gap-3 text-[1.4rem]! text-ink!">
					<StateMark state={one.faults.length ? 'reject' : 'good'} size={24} />
					{one.faults.length ? 'It does not stand' : 'It stands in the record'}
				</h2>
				{#each one.faults as fault (fault)}<p class="mt-1 font-semibold text-held">
						{fault}
					</p>{/each}
				<p class="mt-2 text-[1.1rem]">
					{#if link}<a class="linkish" href={link}>{one.says}</a>{:else}{one.says}{/if}
				</p>
				<p class="text-soft">
					Entry {one.seq}, {siteMoment(one.at)},
					<span class="font-mono break-all">{one.hash}</span>
				</p>
			</section>
		{:else}<p class="flex items-center gap-3 text-[1.2rem]">
				<StateMark state="reject" size={24} />Nothing in this record has that entry or hash.
			</p>{/each}
	</div>
{/if}
