<script lang="ts">
	/** A tablet beside the bench: follows what is done on another device, for eyes two metres away. It changes nothing. */
	import { onMount, untrack } from 'svelte';
	import type { ScreenShows } from '$core/access/screen';
	import { enhance } from '$lib/ui/form/enhance';
	import Notice from '$lib/ui/form/Notice.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	let shows = $state.raw<ScreenShows | null>(untrack(() => data.shows));
	/** It was lit, and is dark now. */
	let ended = $state(false);
	let away = $state(false);
	/** By how much the clock of this tablet is behind the server's, ms. */
	let behind = 0;
	let now = $state(0);
	const EVERY_MS = 1000;
	const leftS = $derived(
		shows?.until ? Math.max(0, Math.ceil((new Date(shows.until).getTime() - now) / 1000)) : null
	);
	$effect(() => {
		shows = data.shows;
	});
	async function look() {
		try {
			const response = await fetch('/screen/now');
			if (!response.ok) throw new Error(String(response.status));
			const said = (await response.json()) as { now: string; shows: ScreenShows | null };
			behind = new Date(said.now).getTime() - Date.now();
			away = false;
			if (!said.shows && shows) ended = true;
			shows = said.shows;
		} catch {
			away = true;
		}
	}
	onMount(() => {
		const tick = setInterval(() => (now = Date.now() + behind), 200);
		const ask = setInterval(() => {
			if (shows) void look();
		}, EVERY_MS);
		return () => {
			clearInterval(tick);
			clearInterval(ask);
		};
	});
</script>

<svelte:head><title>Second screen · Grevan</title></svelte:head>
{#if shows}
	<main class="grid min-h-[92vh] content-center gap-5 p-6 text-center">
		<p class="text-soft text-[1.4rem]">{shows.about}</p>
		<h1 class="text-[clamp(2.6rem,8vw,5.4rem)]! leading-none" aria-live="polite">{shows.title}</h1>
		{#if shows.text}<p class="mx-auto max-w-[56rem] text-[clamp(1.5rem,3.6vw,2.6rem)] leading-snug">
				{shows.text}
			</p>{/if}
		{#if shows.figure}<p class="font-mono text-[clamp(3rem,12vw,7rem)] leading-none font-semibold">
				{shows.figure}
			</p>{/if}
		{#if leftS !== null}<p
				class="font-mono text-[clamp(3rem,12vw,7rem)] leading-none font-semibold"
				role="timer"
			>
				{leftS} s
			</p>{/if}
		{#each shows.lines as line (line)}<p
				class="mx-auto max-w-[52rem] text-[clamp(1.2rem,2.6vw,1.8rem)] leading-relaxed"
			>
				{line}
			</p>{/each}
		{#if away}<p class="mx-auto font-semibold text-held" role="alert">
				The connection is away: this may be old.
			</p>{/if}
	</main>
{:else}
	<main class="mx-auto mt-16 grid max-w-[26rem] gap-4 p-4">
		<h1>Second screen</h1>
		{#if ended}<Notice kind="caution"
				><p>What it followed has ended. Type another code to go on.</p></Notice
			>{/if}
		<p>
			It follows an inspection or a fit test on another device. The code stands there, under “Second
			screen”.
		</p>
		{#if refusal}<Notice kind="refusal"><p>{refusal.message}</p></Notice>{/if}
		<form method="post" action="?/follow" use:enhance class="grid gap-3">
			<label
				><span class="label">Code</span><input
					name="code"
					value={data.code}
					autocomplete="off"
					autocapitalize="characters"
					maxlength="12"
					required
					class="tag w-full text-[1.8rem]! uppercase"
				/></label
			>
			<button class="button primary">Follow</button>
		</form>
	</main>
{/if}
