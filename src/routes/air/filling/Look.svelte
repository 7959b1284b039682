<script lang="ts">
	/** The look at a cylinder before each fill: what to look at, good or what is wrong. */
	import { hearsKeys } from '$lib/ui/shell/keys.svelte';
	interface Props {
		tag: string;
		verdict: { outcome: string; reasons: { rule: string; text: string }[] } | null;
		steps: { key: string; title: string; rejects: { code: string; name: string }[] }[];
		busy: boolean;
		ongood: () => void;
		onreject: (step: string, code: string) => void;
		onback: () => void;
	}
	let { tag, verdict, steps, busy, ongood, onreject, onback }: Props = $props();
	let rejecting = $state(false);
	let step = $state('');
	let code = $state('');
	const may = $derived(verdict?.outcome === 'may');
	const codes = $derived(steps.find((s) => s.key === step)?.rejects ?? []);
	hearsKeys(() => [
		{ keys: '1', does: 'good: onto the panel' },
		{ keys: '2', does: 'reject' }
	]);
	function keys(event: KeyboardEvent) {
		if (event.target !== document.body || busy) return;
		if (event.key === '1' && may && !rejecting) ongood();
		if (event.key === '2') rejecting = true;
	}
</script>

<svelte:window onkeydown={keys} />
<section aria-labelledby="look" class="grid gap-3 rounded border-2 border-ink bg-sheet p-4">
	<h2 id="look" class="text-[1.2rem]! text-ink!">Look at <span class="tag">{tag}</span></h2>
	{#if !may}
		<ul class="font-semibold text-held">
			{#each verdict?.reasons ?? [] as reason (reason.rule)}<li>{reason.text}</li>{:else}<li>
					Its stamp is not on record.
				</li>{/each}
		</ul>
		<p><a class="linkish" href="/air/cylinders/{tag}">To its page</a></p>
	{/if}
	<ul class="grid gap-x-6 sm:grid-cols-2">
		{#each steps as one (one.key)}<li class="rowline py-1">
				<b>{one.title}</b>
				<span class="text-soft text-[0.92rem]">{one.rejects.map((r) => r.name).join('; ')}</span>
			</li>{/each}
	</ul>
	{#if rejecting}
		<form
			class="flex flex-wrap items-end gap-3"
			onsubmit={(event) => {
				event.preventDefault();
				onreject(step, code);
			}}
		>
			<label
				><span class="label">Where</span><select bind:value={step} required
					><option value=""></option>{#each steps as one (one.key)}<option value={one.key}
							>{one.title}</option
						>{/each}</select
				></label
			>
			<label
				><span class="label">What</span><select bind:value={code} required
					><option value=""></option>{#each codes as one (one.code)}<option value={one.code}
							>{one.code}, {one.name}</option
						>{/each}</select
				></label
			>
			<button class="button" disabled={busy}>Reject and hold</button>
			<button type="button" class="button" onclick={() => (rejecting = false)}>Back</button>
		</form>
	{:else}
		<div class="flex flex-wrap gap-3">
			{#if may}<button type="button" class="button primary" disabled={busy} onclick={ongood}
					>All good, onto the panel <kbd>1</kbd></button
				>{/if}
			<button type="button" class="button" onclick={() => (rejecting = true)}
				>Reject <kbd>2</kbd></button
			>
			<button type="button" class="button" disabled={busy} onclick={onback}>Out of the queue</button
			>
		</div>
	{/if}
</section>
