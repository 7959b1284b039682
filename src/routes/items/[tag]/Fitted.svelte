<script lang="ts">
	/** Which lot of each part sits where, and since when. */
	import { stationOf } from '$core/data/families';
	import { siteDay } from '$lib/ui/time/moments';
	import type { PageData } from './$types';

	let { data }: { data: PageData } = $props();
</script>

{#if data.fitted.length}
	<section class="mt-6" aria-labelledby="fitted">
		<h2 id="fitted">Parts in it</h2>
		<ul>
			{#each data.fitted as part (part.station + part.part + part.lotId)}
				<li class="rowline flex flex-wrap gap-x-4 py-1">
					<span class="min-w-[12rem]"
						>{part.name}{part.quantity > 1 ? `, ${part.quantity}` : ''}</span
					>
					<span class="text-soft">{stationOf(data.item.family, part.station).name}</span>
					<span>lot <span class="font-mono">{part.lot}</span></span>
					<span class="text-soft"
						>since {siteDay(part.fittedAt)}{part.jobId ? '' : ', as it came'}</span
					>
				</li>
			{/each}
		</ul>
	</section>
{/if}
