<script lang="ts">
	/** What the wearer sees during a fit test: the movement, in words that are read from two metres away. */
	import { untrack } from 'svelte';
	import { READ_ALOUD } from '$core/fit/protocols';
	import { stepNow } from '$core/fit/sequence';
	import { FitStream } from '$lib/ui/people/fit-stream.svelte';

	let { data } = $props();
	const stream = untrack(() => new FitStream(data.id, data.readings, data.open));
	const now = $derived(data.open ? stepNow(data.steps, stream.readings) : null);
	const at = $derived(data.exercises.findIndex(({ key }) => key === now?.exercise));
	const exercise = $derived(data.exercises[at]);
	const after = $derived(data.exercises[at + 1]);
</script>

<svelte:head><title>Fit test · Grevan</title></svelte:head>
<div class="grid min-h-[70vh] content-center gap-4 text-center" aria-live="polite">
	{#if !data.open}
		<p class="text-[2.6rem] font-bold">
			{data.passed === null ? 'The test has ended.' : data.passed ? 'Passed.' : 'Not passed.'}
		</p>
		<p class="text-[1.5rem]">Leave the mask on until you are told.</p>
	{:else if !now}
		<p class="text-[2.6rem] font-bold">{data.name}: it begins in a moment.</p>
		<p class="text-[1.5rem]">Stand, breathe as always.</p>
	{:else if exercise}
		<p class="text-soft text-[1.3rem]">{at + 1} of {data.exercises.length}</p>
		<p class="text-[clamp(2.4rem,8vw,5rem)] leading-none font-bold">{exercise.name}</p>
		<p class="mx-auto max-w-[48rem] text-[clamp(1.3rem,3vw,2rem)] leading-snug">{exercise.says}</p>
		{#if exercise.key === 'talk'}<p
				class="mx-auto max-w-[52rem] rounded border-2 border-ink bg-sheet p-4 text-left text-[1.5rem] leading-relaxed"
			>
				{READ_ALOUD}
			</p>{/if}
		<p class="font-mono text-[clamp(3rem,12vw,7rem)] leading-none font-semibold" role="timer">
			{Math.ceil(now.leftS)}
		</p>
		{#if after}<p class="text-soft text-[1.3rem]">Then: {after.name.toLowerCase()}</p>{/if}
	{:else}
		<p class="text-[clamp(2.4rem,8vw,5rem)] leading-none font-bold">Breathe as always</p>
		<p class="text-[1.5rem]">Stand still. The next movement comes in a moment.</p>
		<p class="font-mono text-[clamp(3rem,12vw,7rem)] leading-none font-semibold" role="timer">
			{Math.ceil(now.leftS)}
		</p>
	{/if}
</div>
