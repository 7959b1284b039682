<script lang="ts">
	/** The decision ladder, each rung with its answer and its source. */
	import type { Rung } from '$core/hazards/decision';
	import Because from '$lib/ui/because/Because.svelte';

	let { rungs }: { rungs: Rung[] } = $props();
	const SAID = {
		passed: 'passed',
		decides: 'decides',
		notes: 'noted',
		'not reached': 'not reached'
	};
</script>

<h2 id="ladder">Down the ladder</h2>
<ol aria-labelledby="ladder" class="mt-2">
	{#each rungs as rung, i (rung.key)}
		<li class="relative flex gap-3 pb-3" data-rung={rung.key} data-answer={rung.answer}>
			{#if i < rungs.length - 1}<span
					class="absolute top-6 bottom-0 left-[11px] border-l-2 {rung.answer === 'decides' ||
					rung.answer === 'not reached'
						? 'border-rule'
						: 'border-ink'}"
					aria-hidden="true"
				></span>{/if}
			<svg width="24" height="24" viewBox="0 0 24 24" class="shrink-0" aria-hidden="true">
				{#if rung.answer === 'passed'}<circle cx="12" cy="12" r="10" fill="var(--ink)" /><path
						d="M7.5 12.4l3 3 6-6.4"
						fill="none"
						stroke="var(--paper)"
						stroke-width="2.2"
					/>
				{:else if rung.answer === 'decides'}<rect
						x="2"
						y="2"
						width="20"
						height="20"
						rx="3"
						fill="var(--accent)"
					/><path
						d="M6.5 12h10M12.5 8l4.5 4-4.5 4"
						fill="none"
						stroke="var(--onaccent)"
						stroke-width="2.2"
					/>
				{:else if rung.answer === 'notes'}<circle
						cx="12"
						cy="12"
						r="9"
						fill="var(--paper)"
						stroke="var(--due)"
						stroke-width="2.4"
					/><path d="M12 7v6.4M12 16.2v1.6" stroke="var(--due)" stroke-width="2.4" />
				{:else}<circle
						cx="12"
						cy="12"
						r="9"
						fill="none"
						stroke="var(--rule)"
						stroke-width="2"
					/>{/if}
			</svg>
			<div class={rung.answer === 'not reached' ? 'text-soft' : ''}>
				<b class="leading-6">{rung.title}</b><span class="sr-only">: {SAID[rung.answer]}</span>
				{#if rung.answer === 'not reached'}<span class="text-[0.9rem]"> · not reached</span>{:else}
					<p class="text-[0.95rem] {rung.answer === 'decides' ? 'font-semibold' : 'text-soft'}">
						{rung.text}
					</p>
					{#if rung.reasons.length}<Because
							title={rung.title}
							reasons={rung.reasons}
							label="Rule, source, inputs"
						/>{/if}
				{/if}
			</div>
		</li>
	{/each}
</ol>
