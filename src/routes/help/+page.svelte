<script lang="ts">
	/** The guide: every page of it in one, so that it is on the device once it was opened. */
	let { data } = $props();
	let asked = $state('');
	const words = $derived(asked.trim().toLowerCase().split(/\s+/).filter(Boolean));
	const shown = $derived(
		data.guide.filter(({ title, text }) => {
			const all = `${title} ${text}`.toLowerCase();
			return words.every((word) => all.includes(word));
		})
	);
</script>

<svelte:head><title>Guide · Grevan</title></svelte:head>
<div class="flex flex-wrap items-center gap-x-6 gap-y-3">
	<h1>Guide</h1>
	<input
		type="search"
		bind:value={asked}
		autocomplete="off"
		aria-label="Find in the guide"
		placeholder="find in the guide"
		class="ml-auto w-64"
	/>
</div>
<p class="text-soft mt-1" role="status">
	{words.length
		? `${shown.length} of ${data.guide.length} pages carry it.`
		: 'Press ? on any page for its keys. Once opened, the guide is here without a connection.'}
</p>
<div class="mt-5 grid gap-10 lg:grid-cols-[14rem_minmax(0,44rem)]">
	<nav aria-label="Pages of the guide" class="no-print self-start lg:sticky lg:top-4">
		<ul class="flex flex-wrap gap-x-5 lg:grid">
			{#each shown as one (one.key)}<li>
					<a class="linkish inline-flex min-h-11 items-center" href="#{one.key}">{one.title}</a>
				</li>{/each}
		</ul>
	</nav>
	<div class="guide grid gap-9">
		{#each shown as one (one.key)}
			<section id={one.key} aria-labelledby="{one.key}-title">
				<h2 id="{one.key}-title" class="text-[1.35rem]! text-ink!">{one.title}</h2>
				<!-- eslint-disable-next-line svelte/no-at-html-tags -- made from the app's own pages, without HTML in them -->
				{@html one.html}
			</section>
		{:else}<p>No page carries all of these words.</p>{/each}
	</div>
</div>

<style>
	.guide :global(p),
	.guide :global(ul),
	.guide :global(ol) {
		margin-top: 0.6rem;
	}
	.guide :global(ul) {
		list-style: disc;
		padding-left: 1.4rem;
	}
	.guide :global(ol) {
		list-style: decimal;
		padding-left: 1.4rem;
	}
	.guide :global(li) {
		margin-top: 0.3rem;
	}
	.guide :global(code) {
		font-family: var(--font-mono);
	}
	section {
		scroll-margin-top: 1rem;
	}
</style>
