<script lang="ts">
	import { airwayOf } from '$core/data/families';
	import { routeOf } from '$core/data/care-routes';
	import { rejectCode } from '$core/data/reject-codes';
	import { WHERE_WORDS } from '$core/custody/custody';
	import type { ItemState } from '$core/readiness/findings';
	import { invalidateAll } from '$app/navigation';
	import type { LookedOver } from '$core/custody/answers';
	import type { Scanned } from '$core/handout/answers';
	import { freshId } from '$lib/fresh-id';
	import { codeOf } from '$lib/ui/counter/codes';
	import ScanField from '$lib/ui/counter/ScanField.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { sendAction } from '$lib/ui/form/send';
	import { sendJson } from '$lib/ui/form/send-json';
	import StateMark from '$lib/ui/mark/StateMark.svelte';

	let { data } = $props();
	type Item = Extract<Scanned, { kind: 'item' }>;
	let found = $state<Item | null>(null);
	let wrong = $state<Record<string, string>>({});
	let refusal = $state('');
	let waiting = $state(0);
	let done = $state<LookedOver[]>([]);
	let field: ReturnType<typeof ScanField> | undefined = $state();
	let last = Promise.resolve();
	const looks = $derived(found ? routeOf(found.family).looks : []);
	const faults = $derived(
		Object.entries(wrong).flatMap(([station, code]) => (code ? [{ station, code }] : []))
	);

	/** A tag shows what is looked at; the same tag again, Enter or the card say that all of it is good. */
	function scan(word: string) {
		const text = word.trim().toUpperCase();
		const same = found !== null && text === found.tag;
		if (text === '' || codeOf(text) === 'good' || codeOf(text) === 'yes' || same) queue(keep);
		else queue(() => open(text));
	}
	function queue(work: () => Promise<void>) {
		waiting++;
		last = last.then(work).finally(() => waiting--);
	}
	async function open(word: string) {
		refusal = '';
		const answered = await sendJson<Scanned>('POST', '/api/counter/scan', { word });
		if (answered.kind === 'taken' && answered.value.kind === 'item') {
			found = answered.value;
			wrong = {};
		} else
			refusal =
				answered.kind === 'refused'
					? answered.message
					: answered.kind === 'away'
						? 'The server could not be reached. Scan it again.'
						: 'That is no item.';
	}
	async function keep() {
		if (!found) return;
		const sent = await sendAction<{ result: LookedOver }>('?/look', {
			id: freshId(),
			tag: found.tag,
			faults: JSON.stringify(faults)
		});
		if (sent.refused) {
			refusal = sent.refused.message;
			return;
		}
		if (sent.data) done = [sent.data.result, ...done].slice(0, 30);
		found = null;
		wrong = {};
		await invalidateAll();
	}
</script>

<svelte:head><title>Look over · Grevan</title></svelte:head>
<div class="mt-3 flex flex-wrap items-baseline gap-x-4">
	<h1>Look over and put together</h1>
	<p class="text-soft">scan it, look, scan it again: good and on to its shelf</p>
</div>
<div class="mt-3 grid gap-x-8 gap-y-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
	<section>
		<ScanField
			bind:this={field}
			label={found ? `All of ${found.tag} good? Scan it again or press Enter` : 'Scan what is dry'}
			placeholder="tag"
			{waiting}
			onscan={scan}
		/>
		{#if refusal}<div class="mt-3"><Notice kind="refusal"><p>{refusal}</p></Notice></div>{/if}
		{#if found}
			<div class="mt-4 rounded border-2 border-ink bg-sheet p-4">
				<p class="flex flex-wrap items-baseline gap-x-3">
					<span class="tag text-[1.35rem]">{found.tag}</span>
					{found.model}, size {found.size}
					<span class="text-soft">{WHERE_WORDS[found.where]}</span>
				</p>
				<ol class="mt-2">
					{#each looks as look, i (look.station)}
						<li class="rowline flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
							<b class="font-mono">{i + 1}</b>
							<span class="min-w-48 flex-1 text-[1.1rem] {wrong[look.station] ? 'text-held' : ''}"
								>{look.text}</span
							>
							<select
								class="w-60 max-w-full"
								aria-label="{look.text}: what is wrong"
								value={wrong[look.station] ?? ''}
								onchange={(event) =>
									(wrong = { ...wrong, [look.station]: event.currentTarget.value })}
							>
								<option value="">good</option>
								{#each look.codes as code (code)}<option value={code}
										>{rejectCode(code).name}</option
									>{/each}
							</select>
						</li>
					{:else}<li class="py-2">Look at all of it.</li>{/each}
				</ol>
				<p class="mt-3 flex flex-wrap gap-3">
					<button
						class="button primary"
						onclick={() => {
							queue(keep);
							field?.focus();
						}}
						>{faults.length
							? `Not good: to repair with ${faults.length === 1 ? 'a fault' : `${faults.length} faults`}`
							: 'All of it good'} <kbd>Enter</kbd></button
					>
					<button
						class="button"
						onclick={() => {
							found = null;
							field?.focus();
						}}>Not now</button
					>
				</p>
			</div>
		{/if}
		{#if !found && !done.length}<p class="mt-4 max-w-[34rem]">
				Scan what is dry. What is looked at stands here in large; the same tag again, Enter or the
				card says that all of it is good, and it goes on to its shelf, or to the bench where a test
				is due. What is not good is chosen, and goes to repair by its fault.
			</p>{/if}
		{#if done.length}
			<h2 class="mt-6">Looked over, last first</h2>
			<ul>
				{#each done as one, i (i)}
					<li class="rowline flex flex-wrap items-baseline gap-x-3 py-2">
						<StateMark state={one.state as ItemState} />
						<a class="tag inline-flex min-h-9 items-center" href="/items/{one.tag}">{one.tag}</a>
						<b>{WHERE_WORDS[one.next]}</b>
						<span class="text-soft">filters: {one.filters}</span>
						<span class="ml-auto">{one.state === 'ready' ? 'ready' : one.why}</span>
					</li>
				{/each}
			</ul>
		{/if}
	</section>
	<aside>
		<h2>Waits to be looked over, {data.waits.length}</h2>
		{#if data.waits.length === 0}<p class="text-soft mt-1">Nothing.</p>{/if}
		<ul>
			{#each data.waits as row (row.itemId)}<li
					class="rowline flex min-h-11 flex-wrap items-center gap-x-3"
				>
					<button class="tag linkish min-h-11" onclick={() => scan(row.tag)}>{row.tag}</button>
					<span>{airwayOf(row.family).name}</span>
					<span class="text-soft ml-auto">{WHERE_WORDS[row.where]}</span>
				</li>{/each}
		</ul>
	</aside>
</div>
