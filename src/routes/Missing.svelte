<script lang="ts">
	/** What the site still lacks before its work can begin, in order; nothing where it lacks nothing. */
	import type { Missing } from '$core/site/missing';

	let { missing }: { missing: readonly Missing[] } = $props();
</script>

{#if missing.length}
	<div class="mb-6 rounded border-2 border-ink bg-sheet p-4">
		<h2 class="text-[1.15rem]! text-ink!">Still missing, in this order</h2>
		<ol class="mt-2">
			{#each missing as one, i (one.key)}
				<li class={i ? 'rowline' : ''}>
					<a
						href={one.href}
						class="grid min-h-11 grid-cols-[1.6rem_1fr] items-baseline gap-x-2 py-1.5 no-underline"
					>
						<span class="font-mono">{i + 1}</span>
						<span
							><b class={i === 0 ? 'linkish' : 'font-semibold'}>{one.what}</b>
							<span class="text-soft block text-[0.95rem]">{one.why}</span></span
						>
					</a>
				</li>
			{/each}
		</ol>
	</div>
{/if}
