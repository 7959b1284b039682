<script lang="ts">
	/**
	 * The site as one line of air: the shelves of its places at the left, whoever is out at the right, and between them
	 * the way back through wash, bench and filling. Counts at each; every station opens what is there.
	 */
	import { WHERE_NAMES, type Where } from '$core/custody/custody';

	interface Props {
		stations: readonly { where: Where; count: number; oldest: Date | null }[];
		places: readonly { id: string; name: string; onShelf: number; away: number; out: number }[];
		/** What is opened. */
		at: string | null;
	}
	let { stations, places, at }: Props = $props();
	const most = $derived(Math.max(1, ...places.map(({ onShelf, away }) => onShelf + away)));
	const LINE: Where[] = ['issued', 'returned', 'wash', 'drying', 'bench', 'filling'];
	const ASIDE: Where[] = ['service', 'test house', 'quarantine'];
	const of = (where: Where) => stations.find((one) => one.where === where)?.count ?? 0;
</script>

{#snippet station(where: Where)}
	<a
		href="/counter/where?at={encodeURIComponent(where)}"
		aria-current={at === where ? 'true' : undefined}
		class="grid min-w-20 justify-items-center px-2 py-1 no-underline hover:bg-tint {at === where
			? 'bg-tint shadow-[inset_0_-3px_0_var(--accent)]'
			: ''}"
	>
		<b class="font-mono text-[1.3rem] {of(where) ? '' : 'text-soft'}">{of(where)}</b>
		<span class="text-[0.92rem]">{WHERE_NAMES[where]}</span>
	</a>
{/snippet}

<div class="grid gap-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
	<div>
		<h2>On the shelves</h2>
		<ul class="mt-1">
			{#each places as place (place.id)}
				<li
					class="rowline grid grid-cols-[10rem_1fr_auto] items-center gap-x-3 py-1 max-sm:grid-cols-[1fr_auto]"
				>
					<a class="flex min-h-9 items-center" href="/items?place={place.id}">{place.name}</a>
					<svg
						viewBox="0 0 100 10"
						preserveAspectRatio="none"
						class="h-3 w-full max-sm:hidden"
						aria-hidden="true"
					>
						<rect width={(place.onShelf / most) * 100} height="10" fill="var(--ready)" />
						<rect
							x={(place.onShelf / most) * 100}
							width={(place.away / most) * 100}
							height="10"
							fill="var(--wash)"
						/>
					</svg>
					<span class="text-right font-mono whitespace-nowrap"
						>{place.onShelf}{#if place.away}<span class="text-soft">, {place.away} away</span
							>{/if}</span
					>
				</li>
			{/each}
		</ul>
	</div>
	<div>
		<h2>Out and on the way back</h2>
		<p class="mt-1 flex flex-wrap border-b-4 border-ink">
			{#each LINE as where (where)}{@render station(where)}{/each}
		</p>
		<h2 class="mt-4">Beside the way</h2>
		<p class="mt-1 flex flex-wrap border-b-2 border-dashed border-ink">
			{#each ASIDE as where (where)}{@render station(where)}{/each}
		</p>
	</div>
</div>
