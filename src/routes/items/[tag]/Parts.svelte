<script lang="ts">
	/** What a set is put together from, and where a part belongs. */
	import { enhance } from '$lib/ui/form/enhance';
	import { airwayOf } from '$core/data/families';
	import ScanForm from '$lib/ui/form/ScanForm.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import type { PageData } from './$types';

	interface Props {
		data: PageData;
		refusal: string | null;
	}
	let { data, refusal }: Props = $props();
</script>

{#if data.inSet}
	<h2 class="mt-7">Part of</h2>
	<div class="mt-1 flex flex-wrap items-center gap-4">
		<a class="tag linkish" href="/items/{data.inSet}">{data.inSet}</a>
		{#if data.mayKeep}<form method="post" action="?/takeOff" use:enhance>
				<input type="hidden" name="tag" value={data.item.tag} />
				<button class="linkish min-h-11">Take {data.item.tag} off</button>
			</form>{/if}
	</div>
{/if}
{#if data.takesParts}
	<h2 class="mt-7">Put together from</h2>
	{#if data.parts.length === 0}<p class="mt-1">
			Nothing of its own tag. Scan a mask, cylinder or filter onto it; the set is then as ready as
			its worst part.
		</p>{/if}
	<ul>
		{#each data.parts as part (part.tag)}
			<li class="rowline flex min-h-11 flex-wrap items-center gap-x-4 py-1">
				<StateMark state={part.state} word />
				<a class="tag" href="/items/{part.tag}">{part.tag}</a>
				<span>{airwayOf(part.family).name}, {part.model}</span>
				{#if data.mayKeep}<form method="post" action="?/takeOff" class="ml-auto" use:enhance>
						<input type="hidden" name="tag" value={part.tag} />
						<button class="linkish min-h-11" aria-label="Take {part.tag} off">Take off</button>
					</form>{/if}
			</li>
		{/each}
	</ul>
	{#if data.mayKeep}
		<div class="mt-2">
			<ScanForm
				action="?/putOn"
				field="part"
				label="Put on"
				button="Put it on"
				placeholder="scan its tag"
			/>
		</div>
	{/if}
{/if}
{#if refusal}<p class="mt-1 font-semibold text-held" role="alert">{refusal}</p>{/if}
