<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import FaultTable from '$lib/ui/form/FaultTable.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';

	let { data, form } = $props();
	let id = $state(crypto.randomUUID());
	let step = $state<'preview' | 'import'>('preview');
	let busy = $state(false);
	const preview = $derived(form && 'preview' in form ? form.preview : null);
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
</script>

<svelte:head><title>Items from a table · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/items">Items</a></p>
<h1>Items from a table</h1>
<p class="mt-1 max-w-[46rem]">
	A CSV table with the headings <span class="font-mono">tag, model, place</span> and, where known,
	<span class="font-mono">size, serial, in use since</span>. Models and places by the names they
	have here. Nothing is written before you have seen what it would do; nothing that is in the
	register is changed.
</p>
{#if !data.mayKeep}<div class="mt-4">
		<Notice><p>A technician takes items into the register.</p></Notice>
	</div>
{:else}
	<form
		method="post"
		action="?/{step}"
		enctype="multipart/form-data"
		class="mt-4 grid max-w-[46rem] gap-4"
		use:enhance={() => {
			busy = true;
			return async ({ result, update }) => {
				await update({ reset: false });
				busy = false;
				if (result.type === 'success' && step === 'import') id = crypto.randomUUID();
			};
		}}
	>
		<input type="hidden" name="id" value={id} />
		<label
			><span class="label">CSV file</span><input
				type="file"
				name="file"
				accept=".csv,.txt,text/csv"
				class="w-full py-2"
			/></label
		>
		{#if refusal}<Notice kind="refusal"><p>{refusal.message}</p></Notice>{/if}
		{#if form && 'imported' in form}<Notice kind="good"
				><p>{form.imported} items are in the register, to be inspected.</p></Notice
			>{/if}
		<div class="flex flex-wrap items-center gap-3">
			<button class="button primary" onclick={() => (step = 'preview')} disabled={busy}
				>{busy ? 'Reading ...' : 'Look at it first'}</button
			>
			{#if preview?.newCount}
				{#if preview.faultCount}<label class="flex min-h-11 items-center gap-3"
						><input type="checkbox" name="leaveOutBad" />leave out the rows at fault</label
					>{/if}
				<button class="button" onclick={() => (step = 'import')} disabled={busy}
					>Take in {preview.newCount}</button
				>
			{/if}
		</div>
	</form>
	{#if preview}
		<h2 class="mt-6">What it would do</h2>
		<p>
			{preview.rows} rows, {preview.encoding}: {preview.newCount} new,
			<b class={preview.faultCount ? 'text-held' : ''}>{preview.faultCount} cells at fault</b>.
			{#if preview.unknown.length}Headings that are not read: {preview.unknown.join(', ')}.{/if}
		</p>
		<FaultTable faults={preview.faults} count={preview.faultCount} />
	{/if}
{/if}
