<script module lang="ts">
	export interface ChartColours {
		ink: string;
		soft: string;
		rule: string;
		accent: string;
		ready: string;
		due: string;
		held: string;
		band: string;
	}

	function coloursOf(element: HTMLElement): ChartColours {
		const style = getComputedStyle(element);
		const value = (name: string) => style.getPropertyValue(`--${name}`).trim();
		return {
			ink: value('ink'),
			soft: value('soft'),
			rule: value('rule'),
			accent: value('accent'),
			ready: value('ready'),
			due: value('due'),
			held: value('held'),
			band: `${value('accent')}2b`
		};
	}
</script>

<script lang="ts">
	/** A picture of numbers. The same numbers stand in a table below it, for readers and for printing. */
	import type { ChartConfiguration } from 'chart.js';
	import { onDestroy } from 'svelte';
	import { page } from '$app/state';

	interface Props {
		config: (colours: ChartColours) => ChartConfiguration;
		/** What the picture shows, in a sentence. */
		label: string;
		height?: number;
		table?: { head: string[]; rows: (string | number)[][] };
	}
	let { config, label, height = 260, table }: Props = $props();
	let canvas: HTMLCanvasElement | undefined = $state();

	let chart: { destroy: () => void } | undefined;
	$effect(() => {
		if (!canvas) return;
		const element = canvas;
		// A change of theme draws it in other colours.
		void page.data.theme;
		const wanted = config(coloursOf(element));
		let newest = true;
		void import('./draw').then(({ draw }) => {
			if (newest) chart = draw(element, wanted);
		});
		return () => {
			newest = false;
		};
	});
	onDestroy(() => chart?.destroy());
</script>

<figure>
	<div class="relative w-full" style="height: {height}px" role="img" aria-label={label}>
		<!-- Out of the flow, so that its drawn width never holds the page wide. -->
		<canvas bind:this={canvas} class="absolute inset-0" aria-hidden="true"></canvas>
	</div>
	{#if table}
		<details class="mt-1">
			<summary class="linkish min-h-11 cursor-pointer content-center text-[0.9rem]"
				>The numbers</summary
			>
			<div
				class="max-h-72 overflow-auto"
				role="region"
				aria-label="{label}: the numbers"
				tabindex="-1"
			>
				<table class="w-full text-left text-[0.9rem]">
					<thead class="text-soft"
						><tr
							>{#each table.head as cell (cell)}<th class="pr-4 font-semibold">{cell}</th
								>{/each}</tr
						></thead
					>
					<tbody>
						{#each table.rows as row, i (i)}<tr class="border-t border-rule"
								>{#each row as cell, j (j)}<td class="py-0.5 pr-4 font-mono">{cell}</td>{/each}</tr
							>{/each}
					</tbody>
				</table>
			</div>
		</details>
	{/if}
</figure>
