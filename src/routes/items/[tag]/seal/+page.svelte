<script lang="ts">
	import { strapMarks, strapOrder, strapWords } from '$core/drawings/straps';
	import { handsOf } from '$core/drawings/card';
	import RightWrong from '$lib/ui/drawings/RightWrong.svelte';
	import Marks from '$lib/ui/drawings/Marks.svelte';
	import { hearsKeys } from '$lib/ui/shell/keys.svelte';
	import { untrack } from 'svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import { BLOCKING, SEAL_WAYS, type Inlet, type SealWay } from '$core/data/blocking';
	import {
		FELT,
		type Felt,
		FELT_BY_WAY,
		judgeSealCheck,
		type SealAttempt,
		waysAsked
	} from '$core/fit/seal-check';
	import { freshId } from '$lib/fresh-id';
	import Field from '$lib/ui/form/Field.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { siteMoment } from '$lib/ui/time/moments';
	import { refusedAt } from '$lib/ui/form/refused';

	import Instead from './Instead.svelte';

	let { data, form } = $props();
	const order = $derived(strapOrder(data.straps));
	let id = $state(freshId());
	let wearer = $state('');
	let inlet = $state<Inlet>(untrack(() => data.inlets[0] ?? 'port'));
	let attempts = $state<SealAttempt[]>([]);
	const asked = $derived(waysAsked(data.ways, data.site.sealWays));
	const verdict = $derived(judgeSealCheck(data.family, attempts, asked));
	const ended = $derived(verdict.outcome !== 'try again');
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const HEADLINES = {
		seals: 'It seals',
		'try again': 'Try again',
		inspect: 'Inspect the mask',
		'no entry': 'Stop: no entry with this mask'
	} as const;
	const MARKS = {
		seals: 'good',
		inspect: 'watch',
		'no entry': 'reject',
		'try again': 'open'
	} as const;
	let way = $state<SealWay>(untrack(() => data.ways[0] ?? 'in'));
	const felt = $derived(FELT_BY_WAY[way].map((word) => [word, FELT[word]] as const));

	/** Notes what was felt; the way that is still asked for is shown next. */
	function take(word: Felt) {
		attempts.push({ inlet, felt: word, way });
		if (asked.length > 1) way = verdict.next;
	}

	hearsKeys(() =>
		ended ? [] : felt.map(([, words], i) => ({ keys: String(i + 1), does: String(words) }))
	);
	function keys(event: KeyboardEvent) {
		const target = event.target as HTMLElement;
		if (ended || target.closest('input, select, textarea, [role=dialog]')) return;
		const word = felt[Number(event.key) - 1]?.[0];
		if (!word) return;
		take(word);
		event.preventDefault();
	}
</script>

<svelte:head><title>{data.tag}, seal check · Grevan</title></svelte:head>
<svelte:window onkeydown={keys} />
<p class="crumb text-soft">
	<a class="linkish" href="/items/{data.tag}">{data.tag}</a> · {data.model}
</p>
<h1>Seal check before going in</h1>
<div class="mt-4 grid gap-10 lg:grid-cols-[minmax(0,1fr)_21rem]">
	<div>
		<section aria-labelledby="on">
			<h2 id="on">Put on</h2>
			<div class="flex flex-wrap items-start gap-x-8 gap-y-2">
				<ol class="min-w-[16rem] flex-1 list-decimal pl-6 text-[1.1rem]">
					{#each data.straps as strap (strap)}<li>{strap}</li>{/each}
				</ol>
				{#if order.length}<Marks
						marks={strapMarks(order)}
						label={strapWords(order)}
						class="max-w-[16rem]"
					/>{/if}
			</div>
			<p class="text-soft mt-1">
				{data.ofModel
					? `The order that the maker of ${data.model} says.`
					: 'The usual order of its kind: this model has no card of its own. What its maker says comes first.'}
			</p>
			{#each data.makerLines as line (line.text)}<p class="mt-1">
					<b>Maker:</b>
					{line.text}
				</p>{/each}
		</section>
		<section aria-labelledby="block" class="mt-6">
			<h2 id="block">{way === 'in' ? 'Block the inlet' : 'Cover the outlet'}</h2>
			{#if data.ways.length > 1}
				<div class="mt-1 mb-3 flex flex-wrap gap-2" role="group" aria-label="Way of the check">
					{#each data.ways as key (key)}<button
							type="button"
							class="button {way === key ? 'primary' : ''}"
							aria-pressed={way === key}
							onclick={() => (way = key)}>{SEAL_WAYS[key].name}</button
						>{/each}
				</div>
			{/if}
			{#if way === 'in' && data.inlets.length > 1}
				<div class="mt-1 flex flex-wrap gap-2" role="group" aria-label="Inlet">
					{#each data.inlets as key (key)}<button
							type="button"
							class="button {inlet === key ? 'primary' : ''}"
							aria-pressed={inlet === key}
							onclick={() => (inlet = key)}>{BLOCKING[key].name}</button
						>{/each}
				</div>
			{/if}
			<div class="flex flex-wrap items-start gap-x-8">
				<div class="min-w-[17rem] flex-1">
					{#if way === 'out'}
						<p class="mt-3 text-[1.5rem] leading-snug font-semibold">
							{SEAL_WAYS.out.how}
							{data.holdSeconds} s.
						</p>
						<p class="mt-1 text-[1.1rem]">
							The mask lifts a little and no air is felt at the edge. A light touch: pressing holds
							the mask onto the face.
						</p>
					{:else}
						<p class="mt-3 text-[1.5rem] leading-snug font-semibold">{BLOCKING[inlet].how}</p>
						<p class="mt-1 text-[1.1rem]">
							{SEAL_WAYS.in.how}
							{data.holdSeconds} s. {BLOCKING[inlet].wrong}
						</p>
					{/if}
					<p class="text-soft mt-2">
						A seal check is no fit test: it says that this mask sits now.
					</p>
				</div>
				<div class="mt-3 w-full max-w-[21rem]">
					<RightWrong {...handsOf(way === 'out' ? 'out' : inlet)} />
				</div>
			</div>
		</section>
		{#if data.mayCheck && !ended}
			<section aria-labelledby="felt" class="mt-6">
				<h2 id="felt">What did the wearer feel?</h2>
				<div class="mt-2 grid gap-2 sm:grid-cols-2">
					{#each felt as [word, label], i (word)}<button
							type="button"
							class="button min-h-14! justify-start!"
							onclick={() => take(word)}><kbd>{i + 1}</kbd> {label}</button
						>{/each}
				</div>
			</section>
		{/if}
	</div>
	<aside class="grid content-start gap-4 self-start rounded border-2 border-ink bg-sheet p-4">
		<p role="status">
			<span class="flex items-center gap-3 text-[1.4rem] leading-tight font-bold"
				><StateMark state={MARKS[verdict.outcome]} size={24} />{attempts.length
					? HEADLINES[verdict.outcome]
					: 'First attempt'}</span
			>
			{#if attempts.length}<span class="mt-1 block">{verdict.reasons[0]?.text}</span>{/if}
		</p>
		{#if attempts.length}
			<ol class="list-decimal pl-6">
				{#each attempts as one, i (i)}<li>{FELT[one.felt].toLowerCase()}</li>{/each}
			</ol>
			<button
				type="button"
				class="linkish min-h-11 justify-self-start"
				onclick={() => attempts.pop()}>Take the last one back</button
			>
		{/if}
		{#if data.mayCheck && ended && !(form && 'kept' in form)}
			<form
				method="post"
				class="grid gap-3"
				use:enhance={() =>
					async ({ update, result }) => {
						await update({ reset: false });
						if (result.type === 'success') id = freshId();
					}}
			>
				<input type="hidden" name="id" value={id} />
				<input type="hidden" name="attempts" value={JSON.stringify(attempts)} />
				<Field id="wearer" label="Wearer" refusal={refusedAt(refusal, 'wearer')}>
					{#snippet children(field)}<input
							{...field}
							name="wearer"
							bind:value={wearer}
							class="w-full"
						/>{/snippet}
				</Field>
				{#if refusal && refusal.path !== 'wearer'}<Notice kind="refusal"
						><p>{refusal.message}</p></Notice
					>{/if}
				<button class="button primary">Keep the check</button>
			</form>
		{:else if form && 'kept' in form}
			<Notice kind="good"><p>Kept.</p></Notice>
		{/if}
		{#if verdict.outcome === 'inspect'}<a class="button" href="/items/{data.tag}">Inspect it</a
			>{/if}
		{#if verdict.outcome === 'no entry'}<Instead tag={data.tag} />{/if}
		<div class="border-t border-rule pt-3">
			<h2>Before</h2>
			{#if data.checks.length === 0}<p class="text-soft">No seal check on record.</p>{/if}
			<ul>
				{#each data.checks.slice(0, 6) as { check, by } (check.id)}<li class="py-0.5">
						{siteMoment(check.doneAt)}: <b>{check.outcome}</b>, {check.wearer}
						<span class="text-soft">· {check.attempts.length} attempts · {by}</span>
					</li>{/each}
			</ul>
		</div>
	</aside>
</div>
