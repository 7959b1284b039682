<script lang="ts">
	/** How something is done, beside how it is done wrongly. */
	import type { CardPicture } from '$core/drawings/card';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import Marks from './Marks.svelte';

	let { says, marks, wrong }: CardPicture = $props();
</script>

{#snippet shown(drawn: CardPicture['marks'], words: string, state: 'good' | 'reject')}
	<figure class="min-w-0">
		<Marks marks={drawn} />
		<figcaption class="mt-1 flex items-start gap-2 text-[0.93rem] leading-snug">
			<span class="mt-0.5"><StateMark {state} /></span>
			<span>{words}</span>
		</figcaption>
	</figure>
{/snippet}
<div class="grid break-inside-avoid grid-cols-2 gap-4">
	{@render shown(marks, says, 'good')}
	{#if wrong}{@render shown(wrong.marks, wrong.says, 'reject')}{/if}
</div>
