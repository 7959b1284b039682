<script lang="ts">
	/** A fault from anywhere in three keys: its tag, where on it, what it is. */
	import { goto } from '$app/navigation';
	import { findShown } from '$core/drawings/at';
	import { freshId } from '$lib/fresh-id';
	import Airway from '$lib/ui/airway/Airway.svelte';
	import ScanField from '$lib/ui/counter/ScanField.svelte';
	import Drawing from '$lib/ui/drawings/Drawing.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { sendAction } from '$lib/ui/form/send';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { FAULT_LINKS } from '$lib/ui/sections';
	import { hearsKeys } from '$lib/ui/shell/keys.svelte';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';

	let { data } = $props();
	/** One key for each line, in the order in which fingers find them. */
	const KEYS = [...'123456789abcdefghijklmnopqrstuvwxyz'];
	interface Written {
		reportId: string;
		defectId: string;
		tag: string;
		words: string;
		again: boolean;
		held: boolean;
		back: boolean;
	}
	let station = $state<string | null>(null);
	let refusal = $state('');
	let busy = $state(false);
	let written = $state<Written[]>([]);
	/** Two characters closer than this come from a scanner. Common practice. */
	const SCANNER_MS = 80;
	let waits: { key: string; timer: ReturnType<typeof setTimeout> } | null = null;
	let field: ReturnType<typeof ScanField> | undefined = $state();
	const here = $derived(data.found?.stations.find(({ key }) => key === station) ?? null);
	const marks = $derived(
		Object.fromEntries(
			(data.found?.stations ?? []).map(({ key }, i) => [
				key,
				{ mark: 'open' as const, says: `key ${KEYS[i]}` }
			])
		)
	);
	hearsKeys(() =>
		data.found
			? [
					{ keys: '1 to 9, a to z', does: here ? 'what is wrong there' : 'where it is wrong' },
					{ keys: 'Backspace', does: 'one step back' }
				]
			: []
	);

	async function scan(word: string) {
		const tag = word.trim().toUpperCase();
		if (!tag) return;
		station = null;
		refusal = '';
		await goto(`/faults/report?tag=${encodeURIComponent(tag)}`, { keepFocus: true });
	}
	function choose(key: string) {
		station = key;
		refusal = '';
	}
	async function write(code: string) {
		const { found } = data;
		if (!found || !here || busy) return;
		busy = true;
		const id = freshId();
		const at = here;
		const what = at.codes.find((one) => one.code === code);
		const sent = await sendAction<{
			written: { defectId: string; again: boolean; severity: string };
		}>('?/report', { id, tag: found.tag, station: at.key, code });
		busy = false;
		if (sent.refused || !sent.data) {
			refusal = sent.refused?.message ?? 'It was not taken. Do it again.';
			return;
		}
		const { defectId, again, severity } = sent.data.written;
		written = [
			{
				reportId: id,
				defectId,
				tag: found.tag,
				words: `${at.name}: ${what?.name ?? code}`,
				again,
				held: severity === 'stop' || severity === 'repair',
				back: false
			},
			...written
		].slice(0, 20);
		station = null;
		await goto('/faults/report', { keepFocus: true });
	}
	async function takeBack(one: Written) {
		const sent = await sendAction('?/back', {
			reportId: one.reportId,
			why: 'Written down by mistake.'
		});
		if (sent.refused) refusal = sent.refused.message;
		else one.back = true;
	}
	function key(event: KeyboardEvent) {
		const { found } = data;
		const target = event.target as HTMLElement;
		if (!found || event.ctrlKey || event.metaKey || event.altKey) return;
		const typing = target.closest('input, textarea, select');
		if (typing && (typing as HTMLInputElement).value !== '') return;
		if (typing && !typing.closest('main')) return;
		if (event.key === 'Backspace' && station) {
			event.preventDefault();
			station = null;
			return;
		}
		if (event.key.length !== 1 || event.key === '/' || event.key === '?') return;
		event.preventDefault();
		event.stopPropagation();
		if (waits) {
			// Faster than fingers: a scanner types another tag.
			clearTimeout(waits.timer);
			field?.type(waits.key + event.key);
			waits = null;
			return;
		}
		const typed = event.key;
		waits = { key: typed, timer: setTimeout(() => take(typed), SCANNER_MS) };
	}
	function take(typed: string) {
		waits = null;
		const list = here ? here.codes : (data.found?.stations ?? []);
		const chosen = list[KEYS.indexOf(typed.toLowerCase())];
		if (!chosen) return;
		if ('code' in chosen) void write(chosen.code);
		else choose(chosen.key);
	}
</script>

<svelte:window onkeydowncapture={key} />
<svelte:head><title>Write a fault down · Grevan</title></svelte:head>
<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>Write a fault down</h1>
	<p class="text-soft">its tag, where on it, what it is</p>
</div>
<div class="mt-2"><SectionLinks label="Faults" links={FAULT_LINKS} /></div>
<div class="mt-3 max-w-xl">
	<ScanField
		bind:this={field}
		label={data.found ? `Another one than ${data.found.tag}` : 'Scan it'}
		placeholder="tag"
		waiting={busy ? 1 : 0}
		onscan={scan}
	/>
</div>
{#if data.unknown}<div class="mt-3 max-w-xl">
		<Notice kind="refusal"><p>{data.unknown}</p></Notice>
	</div>{/if}
{#if refusal}<div class="mt-3 max-w-xl">
		<Notice kind="refusal"><p>{refusal}</p></Notice>
	</div>{/if}
{#if data.found}
	{@const found = data.found}
	<section class="mt-4" aria-labelledby="what">
		<h2 id="what" class="flex flex-wrap items-baseline gap-x-3 text-[1.25rem]! text-ink!">
			<span class="tag">{found.tag}</span>
			{here ? `${here.name}: what is wrong?` : 'Where is it wrong?'}
		</h2>
		<p class="text-soft">{found.model}, size {found.size}, {found.place}</p>
		<div class="mt-3 max-md:hidden">
			<Airway
				stations={found.airway}
				{marks}
				label="Where it is wrong"
				current={station}
				onchoose={choose}
			/>
		</div>
		{#if here}
			<ol class="mt-3 grid gap-2 sm:grid-cols-2 lg:grid-cols-3">
				{#each here.codes as one, i (one.code)}
					{@const picture = findShown(found.family, here.key, one.code)}
					<li>
						<button
							class="button w-full justify-start! text-left"
							disabled={busy}
							onclick={() => void write(one.code)}
							><kbd>{KEYS[i]}</kbd><StateMark
								state={one.severity === 'stop' || one.severity === 'repair' ? 'held' : 'watch'}
							/><span class="min-w-0 flex-1 first-letter:uppercase">{one.name}</span
							>{#if picture && 'subject' in picture}<Drawing
									subject={picture.subject}
									what={one.code}
									silent
									class="max-w-[4.6rem] shrink-0"
								/>{/if}</button
						>
					</li>
				{/each}
			</ol>
			<p class="mt-2">
				<button class="button" onclick={() => (station = null)}
					>Another place on it <kbd>Backspace</kbd></button
				>
			</p>
		{:else}
			<ol class="mt-3 grid gap-2 sm:grid-cols-2 lg:grid-cols-3">
				{#each found.stations as one, i (one.key)}
					<li>
						<button class="button w-full justify-start! text-left" onclick={() => choose(one.key)}
							><kbd>{KEYS[i]}</kbd><span class="min-w-0 flex-1">{one.name}</span></button
						>
					</li>
				{/each}
			</ol>
		{/if}
	</section>
{/if}
{#if written.length}
	<section class="mt-6" aria-labelledby="done">
		<h2 id="done">Written down here</h2>
		<ul role="status">
			{#each written as one (one.reportId)}
				<li class="rowline flex flex-wrap items-center gap-x-4 py-1">
					<StateMark state={one.back ? 'retired' : one.held ? 'held' : 'watch'} />
					<span class="tag">{one.tag}</span>
					<span class="min-w-0 flex-1 {one.back ? 'line-through' : ''}"
						>{one.words}{one.again ? ', one more report of it' : one.held ? ', held' : ''}</span
					>
					{#if one.back}<span class="text-soft">taken back</span>{:else}<a
							class="linkish inline-flex min-h-11 items-center"
							href="/faults/{one.defectId}">Open it</a
						><button class="button" onclick={() => void takeBack(one)}
							>A mistake: take it back</button
						>{/if}
				</li>
			{/each}
		</ul>
	</section>
{:else if !data.found}<p class="mt-4 text-soft">
		What stops its use holds the item at once. What was found in an inspection is written down
		there.
	</p>{/if}
