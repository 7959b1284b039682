<script lang="ts">
	import { clock } from '$core/filters/schedule';
	import { readable } from '$core/plan/calendar';

	let { data } = $props();
	const SIDES = ['left', 'right'];
</script>

<svelte:head><title>Labels {data.tag} · Grevan</title></svelte:head>
<div class="no-print mb-5 flex flex-wrap items-center gap-4">
	<a class="linkish" href="/filters/pairs/{data.tag}">{data.tag}</a>
	<h1>Labels for the {data.filters === 2 ? 'pair' : 'filter'}</h1>
	<button class="button primary ml-auto" onclick={() => print()}>Print</button>
</div>
<div class="flex flex-wrap gap-5">
	{#each SIDES.slice(0, data.filters) as side (side)}
		<article
			class="grid w-[86mm] grid-cols-[1fr_26mm] gap-3 rounded border-2 border-ink bg-white p-3 text-black"
			aria-label="Label, {side}"
		>
			<div>
				<p class="font-mono text-[1.25rem] font-bold">{data.tag}</p>
				<p class="text-[0.95rem]">{data.code} · {data.model}, lot {data.lot}</p>
				<p class="mt-1 text-[0.95rem]">
					{data.itemTag}{data.filters === 2 ? `, ${side}` : ''} · opened
					<b>{readable(data.openedOn)}</b>
					· <b>{data.initials}</b>
				</p>
				<p class="mt-1 text-[1.05rem]">Change by <b>{readable(data.changeOn)}</b></p>
				{#if data.changeAfterMin}<p class="text-[1.05rem]">
						or after <b>{clock(data.changeAfterMin)}</b> of wear
					</p>{/if}
			</div>
			<div class="grid content-between [&_svg]:h-auto [&_svg]:w-full">
				<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn on the server from the tag alone -->
				{@html data.qr}
				<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn on the server from the tag alone -->
				{@html data.bar}
			</div>
		</article>
	{/each}
</div>
