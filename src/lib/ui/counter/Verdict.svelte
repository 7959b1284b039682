<script lang="ts">
	/** What the gate says of what lies on the counter: the answer, every reason with its fix, the way that works. */
	import Because from '../because/Because.svelte';
	import StateMark from '../mark/StateMark.svelte';
	import { ANSWERS } from '$core/custody/questions';
	import type { Desk } from './desk.svelte';

	interface Props {
		desk: Desk;
		mayOverride: boolean;
		onafter: () => void;
	}
	let { desk, mayOverride, onafter }: Props = $props();
	const said = $derived(desk.said);
	const several = $derived((said?.judged.length ?? 0) > 1);
	const HEADS = {
		'hand out': 'Hand out',
		'with conditions': 'Hand out, if',
		'do not': 'Do not hand out'
	};
	const LOOK = {
		'hand out': 'border-ready bg-tint',
		'with conditions': 'border-due bg-duetint',
		'do not': 'border-held bg-heldtint'
	};
	const first = $derived(
		said?.judged.flatMap(({ verdict }) => verdict.reasons).find(({ rule }) => rule !== 'gate.clear')
	);
	const stops = $derived(
		said?.judged.flatMap(({ verdict }) => verdict.reasons.filter((r) => r.weight === 'stop'))
			.length ?? 0
	);
	const way = $derived(said?.outcome === 'do not' ? said.instead[0] : undefined);
	let reason = $state('');
	const then = (work: Promise<void>) => void work.then(onafter);
</script>

{#if said}
	<div class="rounded border-2 p-4 {LOOK[said.outcome]}" role="status">
		<p class="text-[1.35rem] leading-tight font-bold">{HEADS[said.outcome]}</p>
		{#if said.outcome === 'do not'}<p class="mt-1">
				{stops === 1 ? first?.text : `${stops} things are in the way.`}
			</p>{/if}
		{#if said.kept}<p class="mt-1 font-semibold">
				By what this device knew. The record asks again when the connection is back.
			</p>{/if}
	</div>
	{#if desk.asked.length}
		{#each desk.asked as one (`${one.tag} ${one.question}`)}
			<div class="mt-3 border-l-4 border-due bg-duetint px-4 py-3">
				<p><span class="tag">{one.tag}</span>: {one.text} How is it?</p>
				<p class="mt-2 flex flex-wrap gap-2">
					{#each ANSWERS[one.question] as words (words)}<button
							class="button"
							onclick={() => then(desk.answer(words))}>{words}</button
						>{/each}
				</p>
			</div>
		{/each}
	{/if}
	<ul class="mt-2">
		{#each said.judged as one (one.tag)}
			{#each one.verdict.reasons as reason, i (i)}
				<li class="rowline grid grid-cols-[1.6rem_1fr_auto] items-start gap-x-2 py-2">
					<span class="pt-0.5"
						><StateMark
							state={reason.rule === 'gate.clear'
								? 'ready'
								: reason.weight === 'stop'
									? 'held'
									: 'due'}
							size={16}
						/></span
					>
					<span>
						{#if several}<span class="tag">{one.tag}</span>
						{/if}<b class="font-semibold">{reason.text}</b>
						<span class="block">{reason.fix}</span>
					</span>
					<Because title={reason.text} reasons={[reason]} />
				</li>
			{/each}
		{/each}
	</ul>
	{#if said.outcome === 'with conditions' && !desk.asked.length}
		<p class="mt-3">
			<button class="button primary" onclick={() => then(desk.scan(''))}
				>All of it is so: hand out <kbd>Enter</kbd></button
			>
		</p>
	{/if}
	{#if said.outcome === 'do not'}
		{#if way}
			<div class="mt-3 rounded border-2 border-ink bg-sheet p-4">
				<h2>Nearest way that works</h2>
				<div class="mt-1 flex flex-wrap items-center gap-3">
					<p class="min-w-0 flex-1">
						<span class="tag">{way.tag}</span>
						{way.model}, size {way.size}
						<span class="text-soft block"
							>{way.place}{way.verdict.outcome === 'with conditions'
								? `. ${way.verdict.reasons[0]?.fix ?? ''}`
								: ''}</span
						>
					</p>
					<button class="button primary" onclick={() => then(desk.scan(''))}
						>Take this one <kbd>Enter</kbd></button
					>
				</div>
				{#if said.instead.length > 1}<p class="text-soft mt-2">
						Or: {said.instead
							.slice(1)
							.map(({ tag, model, size, place }) => `${tag}, ${model} ${size}, ${place}`)
							.join('; ')}.
					</p>{/if}
			</div>
		{:else if !said.kept}<p class="mt-3">
				Nothing that is ready here or elsewhere goes out to this person for this task.
			</p>{/if}
		{#if mayOverride && !said.kept}
			<details class="mt-3">
				<summary class="linkish inline-flex min-h-11 items-center"
					>Hand out against the gate</summary
				>
				<form
					class="flex flex-wrap items-end gap-3"
					onsubmit={(event) => {
						event.preventDefault();
						if (reason.trim()) then(desk.override(reason));
						reason = '';
					}}
				>
					<div class="min-w-0 flex-1">
						<label class="label" for="override">Why; it stands on every record after it</label>
						<input id="override" class="w-full" maxlength="300" required bind:value={reason} />
					</div>
					<button class="button">Hand out all the same</button>
				</form>
			</details>
		{/if}
	{/if}
{/if}
