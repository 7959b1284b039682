<script lang="ts">
	/** Pass rates by model and size: where each lies, and between which it surely does; few tests are said to be few. */
	import { groupBy } from '$core/group-by';
	import { inHundred, type PassRate } from '$core/fit/pass-rate';

	interface Props {
		rates: readonly PassRate[];
	}
	let { rates }: Props = $props();
	const models = $derived([...groupBy(rates, ({ model }) => model)]);
</script>

{#if rates.length === 0}<p class="mt-1">
		Nothing was tested yet: which mask to try first cannot be said.
	</p>{/if}
{#each models as [model, sizes] (model)}
	<h3 class="mt-3 font-semibold">{model}</h3>
	<ul>
		{#each sizes as one (one.size)}
			<li class="grid grid-cols-[4rem_minmax(0,1fr)_9.5rem] items-center gap-x-3 py-1">
				<span>size {one.size}</span>
				<svg
					viewBox="0 0 100 16"
					preserveAspectRatio="none"
					class="h-5 w-full"
					role="img"
					aria-label="{inHundred(one.rate)} in 100 pass, between {inHundred(
						one.lower
					)} and {inHundred(one.upper)}"
				>
					<rect y="7" width="100" height="2" fill="var(--tint)" />
					<rect
						x={one.lower * 100}
						y="4"
						width={Math.max(0.5, (one.upper - one.lower) * 100)}
						height="8"
						fill="var(--accent)"
						opacity={one.few ? 0.25 : 0.45}
					/>
					<rect x={one.rate * 100 - 0.6} y="1" width="1.2" height="14" fill="var(--ink)" />
				</svg>
				<span class="text-[0.95rem]"
					><b class="font-mono">{inHundred(one.rate)}</b> in 100
					<span class="text-soft"
						>{one.few ? `· only ${one.tested}` : `· ${one.tested} tested`}</span
					></span
				>
			</li>
		{/each}
	</ul>
{/each}
{#if rates.length}<p class="text-soft mt-2 text-[0.9rem]">
		Upright: the share that is expected to pass. Band: where it lies in 95 of 100 cases, drawn
		towards its model’s where few were tested.
	</p>{/if}
