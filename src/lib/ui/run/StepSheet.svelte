<script lang="ts">
	/** What good looks like and what is rejected, drawn beside each other: while a code is chosen, its row gives it. */
	import type { Snippet } from 'svelte';
	import { rejectCode } from '$core/data/reject-codes';
	import type { Step } from '$core/inspection/procedure';
	import { shownAt, subjectsAt } from '$core/drawings/at';
	import Drawing from '$lib/ui/drawings/Drawing.svelte';

	interface Props {
		family: string;
		step: Step;
		choosing: boolean;
		/** Left out where the eye is being tried. */
		pictures?: boolean;
		onreject: (code: string) => void;
		onnone: () => void;
		/** What stands above what is good, beside the codes. */
		lead?: Snippet;
		/** What stands under the words of what is good. */
		children?: Snippet;
	}
	let {
		family,
		step,
		choosing,
		pictures = true,
		onreject,
		onnone,
		lead,
		children
	}: Props = $props();
	const drawn = $derived(pictures && (step.kind === 'look' || step.kind === 'feel'));
	const good = $derived(drawn ? subjectsAt(family, step) : []);
	const shown = (code: string) => (drawn ? shownAt(family, step.station, code) : null);
</script>

{#snippet row(code: string)}
	{@const picture = shown(code)}
	<span class="tag w-16">{code}</span>
	<span class="min-w-0 flex-1">{rejectCode(code).name}</span>
	{#if picture && 'subject' in picture}<Drawing
			subject={picture.subject}
			what={code}
			class="max-w-[5.2rem] shrink-0"
		/>{/if}
{/snippet}

<div class="mt-4 grid gap-6 md:grid-cols-2">
	<div>
		{@render lead?.()}
		<h2 class={lead ? 'mt-4' : ''}>Good looks like</h2>
		<p class="text-[1.05rem]">{step.good}</p>
		{#if good.length}<div class="mt-1 flex flex-wrap gap-3">
				{#each good as subject (subject)}<Drawing {subject} class="max-w-[8.4rem]" />{/each}
			</div>{/if}
		{@render children?.()}
	</div>
	<div>
		<h2 id="codes">{choosing ? 'Which? Press its number' : 'Reject if'}</h2>
		<ul aria-labelledby="codes">
			{#each step.rejects as code, i (code)}
				<li class="border-t border-rule">
					{#if choosing}
						<button
							type="button"
							class="flex min-h-11 w-full cursor-pointer items-center gap-3 text-left hover:bg-heldtint"
							onclick={() => onreject(code)}
						>
							<kbd>{i + 1}</kbd>{@render row(code)}<span class="text-soft text-[0.88rem]"
								>{rejectCode(code).severity}</span
							>
						</button>
					{:else}
						<div class="flex min-h-9 items-center gap-3">{@render row(code)}</div>
					{/if}
				</li>
			{/each}
		</ul>
		{#if choosing}<button type="button" class="linkish mt-2 min-h-11" onclick={onnone}
				>None of these <kbd>Esc</kbd></button
			>{/if}
	</div>
</div>
