<script lang="ts">
	/** Stock-take: scan or walk along the drawers, type what is there; one press keeps all of it. */
	import { readable } from '$core/plan/calendar';
	import { enhance } from '$lib/ui/form/enhance';
	import Notice from '$lib/ui/form/Notice.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';

	let { data, form } = $props();
	let counted = $state<Record<string, string>>({});
	let scan = $state('');
	let lost = $state('');
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const whole = (text: string | undefined) =>
		text !== undefined && /^\d{1,6}$/.test(text.trim()) ? Number(text) : null;
	const counts = $derived(
		data.lots.flatMap((lot) => {
			const n = whole(counted[lot.id]);
			return n === null ? [] : [{ lotId: lot.id, seen: lot.quantity, counted: n }];
		})
	);
	const differ = $derived(counts.filter((one) => one.counted !== one.seen).length);
	const wrong = $derived(
		data.lots.filter((lot) => (counted[lot.id] ?? '') !== '' && whole(counted[lot.id]) === null)
	);

	function find(event: SubmitEvent) {
		event.preventDefault();
		const word = scan.trim().toLowerCase();
		const found = data.lots.find(
			(lot) => lot.lot.toLowerCase() === word || lot.name.toLowerCase().startsWith(word)
		);
		lost = found ? '' : scan;
		scan = '';
		if (found) document.getElementById(`n-${found.id}`)?.focus();
	}
	/** Enter goes on to the next lot, as along a drawer. */
	function next(event: KeyboardEvent, i: number) {
		if (event.key !== 'Enter') return;
		event.preventDefault();
		document.getElementById(`n-${data.lots[i + 1]?.id ?? ''}`)?.focus();
	}
</script>

<svelte:head><title>Stock-take · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/faults/parts">Parts store</a></p>
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<h1>Stock-take</h1>
	<p class="text-soft" role="status">
		{counts.length} of {data.lots.length} counted{differ ? `, ${differ} differ` : ''}
	</p>
	<form class="ml-auto flex items-end gap-3" onsubmit={find}>
		<input
			bind:value={scan}
			aria-label="Scan a lot or type a part"
			placeholder="scan a lot"
			autocomplete="off"
			class="tag w-44"
		/>
	</form>
</div>
{#if lost}<p class="mt-2 font-semibold text-held" role="alert">
		“{lost}” is no lot that the record has here: take it in as a delivery.
	</p>{/if}
{#if form && 'counted' in form}<div class="mt-3">
		<Notice kind="good"
			><p role="status">
				Kept: {form.counted} lots counted, {form.differ} differed.
			</p></Notice
		>
	</div>{/if}
{#if refusal}<div class="mt-3"><Notice kind="refusal"><p>{refusal.message}</p></Notice></div>{/if}
<ul class="mt-4">
	{#each data.lots as lot, i (lot.id)}
		{@const n = whole(counted[lot.id])}
		<li
			class="rowline grid grid-cols-[1fr_auto] items-center gap-x-4 py-1 sm:grid-cols-[9rem_1fr_11rem_7rem_9rem]"
		>
			<span class="text-soft max-sm:hidden">{lot.location || 'no place'}</span>
			<span
				><b>{lot.name}</b> <span class="font-mono">{lot.lot}</span>
				<span class="text-soft sm:hidden">{lot.location}</span></span
			>
			<span class="text-soft max-sm:hidden">{lot.useBy ? `until ${readable(lot.useBy)}` : ''}</span>
			<input
				id="n-{lot.id}"
				bind:value={counted[lot.id]}
				inputmode="numeric"
				autocomplete="off"
				placeholder={String(lot.quantity)}
				aria-label="Counted of {lot.name}, lot {lot.lot}"
				class="w-24 font-mono text-[1.15rem]"
				onkeydown={(event) => next(event, i)}
			/>
			<span
				class={[
					'max-sm:col-span-2',
					n !== null && n !== lot.quantity ? 'font-semibold text-due' : 'text-soft'
				]}
				>{n === null
					? `${lot.quantity} on record`
					: n === lot.quantity
						? 'as on record'
						: `${n > lot.quantity ? '+' : '−'}${Math.abs(n - lot.quantity)}`}</span
			>
		</li>
	{:else}<li>Nothing is in the store.</li>{/each}
</ul>
{#if wrong.length}<p class="mt-3 font-semibold text-held" role="alert">
		Whole numbers only: {wrong.map((lot) => `${lot.name}, ${lot.lot}`).join('; ')}.
	</p>{/if}
<form
	method="post"
	class="mt-5 flex max-w-[44rem] flex-wrap items-end gap-3"
	use:enhance={() =>
		async ({ result, update }) => {
			await update();
			if (result.type === 'success') counted = {};
		}}
>
	<input type="hidden" name="counts" value={JSON.stringify(counts)} />
	<div class="min-w-[14rem] flex-1">
		<PlainField name="note" label="Where what differs went, if it is known" />
	</div>
	<button class="button primary" disabled={counts.length === 0 || wrong.length > 0}
		>Keep the count of {counts.length}</button
	>
</form>
