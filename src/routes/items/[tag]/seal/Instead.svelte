<script lang="ts">
	/** What stands ready in place of a mask that did not seal; asked for only when that is known. */
	import type { ReadyGroup } from '$core/fit/instead';

	let { tag }: { tag: string } = $props();

	async function ask(): Promise<{ task: string | null; instead: ReadyGroup[] }> {
		const response = await fetch(`/api/items/${encodeURIComponent(tag)}/instead`);
		if (!response.ok) throw new Error(response.statusText);
		return response.json();
	}
	const found = $derived(ask());
</script>

<section aria-labelledby="instead" class="border-t border-rule pt-3">
	{#await found}
		<h2 id="instead">Ready instead</h2>
		<p role="status">Looking for another …</p>
	{:then { task, instead }}
		<h2 id="instead">Ready instead{task ? `, for ${task}` : ''}</h2>
		{#if instead.length === 0}<p>Nothing else that would serve is ready.</p>{/if}
		<ul>
			{#each instead as one (one.tag)}<li class="rowline py-1">
					<a class="tag" href="/items/{one.tag}">{one.tag}</a>
					<b>{one.model}</b>, {one.size}
					<span class="text-soft block"
						>{one.place}{one.count > 1 ? ` · ${one.count} ready` : ''}</span
					>
				</li>{/each}
		</ul>
	{:catch}
		<h2 id="instead">Ready instead</h2>
		<p>The list could not be fetched: no connection. Ask at the store.</p>
	{/await}
</section>
