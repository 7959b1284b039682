<script lang="ts">
	/** Six questions, one after the other, by number keys; why after each. */
	import { onMount } from 'svelte';
	import { type Question, questionsOf } from '$core/drill/short-tests';
	import { pictureOf } from '$core/drawings/card';
	import { freshId } from '$lib/fresh-id';
	import Marks from '$lib/ui/drawings/Marks.svelte';
	import RightWrong from '$lib/ui/drawings/RightWrong.svelte';
	import Kept from '$lib/ui/drill/Kept.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { outbox } from '$lib/ui/outbox/outbox.svelte';
	import { hearsKeys } from '$lib/ui/shell/keys.svelte';

	let { data } = $props();
	let id = $state('');
	let seed = $state(0);
	let questions = $state.raw<Question[]>([]);
	let chosen = $state.raw<number[]>([]);
	/** The question that is answered and whose why is read. */
	let told = $state(false);
	const at = $derived(told ? chosen.length - 1 : chosen.length);
	const question = $derived(questions[at]);
	const picture = $derived(question && pictureOf(question));
	const done = $derived(questions.length > 0 && chosen.length === questions.length && !told);
	const right = $derived(questions.filter((one, i) => one.right === chosen[i]).length);
	hearsKeys(() => [
		{ keys: '1 to 4', does: 'an answer' },
		{ keys: 'Enter', does: 'next' }
	]);

	function begin() {
		id = freshId();
		seed = (crypto.getRandomValues(new Uint32Array(1))[0] ?? 1) >>> 1;
		questions = questionsOf(data.test.key, seed, data.ruleSet);
		chosen = [];
		told = false;
	}
	onMount(begin);

	function choose(option: number) {
		if (told || !question || option >= question.options.length) return;
		chosen = [...chosen, option];
		told = true;
	}
	function next() {
		if (done) return begin();
		if (!told) return;
		told = false;
		if (chosen.length < questions.length) return;
		outbox.put({
			id,
			about: `drill:${id}`,
			name: 'Short test',
			says: `${data.test.name}, ${right} of ${questions.length} right`,
			url: '/api/drill/tests',
			body: { id, test: data.test.key, seed, chosen }
		});
	}
	function key(event: KeyboardEvent) {
		if ((event.target as HTMLElement).closest('a, input, [role=dialog]')) return;
		if (event.key === 'Enter') {
			if ((event.target as HTMLElement).closest('button')) return;
			next();
		} else if (/^[1-9]$/.test(event.key)) choose(Number(event.key) - 1);
		else return;
		event.preventDefault();
	}
</script>

<svelte:window onkeydown={key} />
<svelte:head><title>{data.test.name} · Grevan</title></svelte:head>
<h1 class="mt-3">{data.test.name}</h1>
{#if done}
	<p class="mt-3 text-[1.4rem]"><b>{right} of {questions.length} right.</b></p>
	<ul class="mt-2">
		{#each questions as one, i (i)}
			<li class="flex items-start gap-3 border-t border-rule py-2">
				<span class="mt-1"><StateMark state={one.right === chosen[i] ? 'good' : 'reject'} /></span>
				<span
					>{one.asks} <b>{one.options[one.right]}.</b>
					{#if one.right !== chosen[i]}<span class="text-soft"
							>Answered: {one.options[chosen[i] ?? 0]}.</span
						>{/if}</span
				>
			</li>
		{/each}
	</ul>
	<p class="mt-4 flex flex-wrap items-center gap-4">
		<button type="button" class="button primary" onclick={next}>Again <kbd>Enter</kbd></button>
		<a class="button" href="/drill">To the drills</a>
		<Kept {id} />
	</p>
{:else if question}
	<p class="mt-1 text-soft">Question {at + 1} of {questions.length}</p>
	<p class="mt-3 max-w-[46rem] text-[1.35rem]" aria-live="polite">{question.asks}</p>
	<div class="grid gap-x-8 lg:grid-cols-[minmax(0,46rem)_minmax(0,20rem)]">
		{#if question.marks || picture}<div class="mt-3 max-w-[20rem] lg:order-2">
				{#if question.marks}<Marks
						marks={question.marks}
						label="Pressure over the hold, and the temperature below it"
					/>{:else if picture && told}<RightWrong {...picture} />{:else if picture}<Marks
						marks={question.rightly || !picture.wrong ? picture.marks : picture.wrong.marks}
						label="What is asked about, drawn"
						class="max-w-[15.5rem]"
					/>{/if}
			</div>{/if}
		<ol class="mt-3 grid content-start gap-2">
			{#each question.options as option, i (option)}
				<li>
					<button
						type="button"
						class="button w-full justify-start! gap-3 text-left! whitespace-normal!"
						class:font-bold={told && i === question.right}
						disabled={told}
						onclick={() => choose(i)}
						><kbd>{i + 1}</kbd>
						<span class="flex-1">{option}</span>
						{#if told && i === question.right}<StateMark state="good" /><span>right</span
							>{:else if told && i === chosen[at]}<StateMark state="reject" /><span>chosen</span
							>{/if}</button
					>
				</li>
			{/each}
		</ol>
	</div>
	{#if told}
		<p class="mt-3 max-w-[46rem] text-[1.1rem]" role="status">
			<b>{chosen[at] === question.right ? 'Right.' : 'Not so.'}</b>
			{question.why}
		</p>
		<p class="mt-3">
			<button type="button" class="button primary" onclick={next}>Next <kbd>Enter</kbd></button>
		</p>
	{/if}
{/if}
