<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import FaultTable from '$lib/ui/form/FaultTable.svelte';
	import { asksNothing } from '$core/csv/ways';
	import { freshId } from '$lib/fresh-id';
	import Notice from '$lib/ui/form/Notice.svelte';
	import TableWays from '$lib/ui/register/TableWays.svelte';

	let { data, form } = $props();
	let importId = $state(freshId());
	let step = $state<'preview' | 'import'>('preview');
	let busy = $state(false);
	const preview = $derived(form && 'preview' in form ? form.preview : null);
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const n = (count: number) => count.toLocaleString('en-GB');
</script>

<svelte:head><title>Import substances · Grevan</title></svelte:head>
<p class="text-soft"><a class="linkish" href="/hazards/substances">Substances</a></p>
<h1>Import substances</h1>
<p class="mt-1 max-w-[46rem]">
	A CSV table with a heading: <span class="font-mono">name</span>,
	<span class="font-mono">form</span>
	and any of the columns that an
	<a class="linkish" href="/hazards/substances/export?which=all" data-sveltekit-reload>export</a> holds.
	Comma, semicolon or tab, point or decimal comma, UTF-8, UTF-16 or an older encoding; what cannot be
	told from the file is asked. Nothing is written before you have seen what it would do.
</p>
{#if !data.mayEdit}<div class="mt-4">
		<Notice><p>A supervisor imports substances.</p></Notice>
	</div>{:else}
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
				if (result.type === 'success' && step === 'import') importId = freshId();
			};
		}}
	>
		<input type="hidden" name="id" value={importId} />
		<label
			><span class="label">CSV file</span><input
				type="file"
				name="file"
				accept=".csv,.txt,text/csv"
				class="w-full py-2"
			/></label
		>
		<TableWays asks={preview?.asks ?? null} />
		{#if refusal}<Notice kind="refusal"><p>{refusal.message}</p></Notice>{/if}
		{#if form && 'imported' in form}<Notice kind="good"
				><p>{n(Number(form.imported))} substances are in the library.</p></Notice
			>{/if}
		<div class="flex flex-wrap items-end gap-3">
			<button class="button primary" onclick={() => (step = 'preview')} disabled={busy}
				>{busy ? 'Reading ...' : 'Look at it first'}</button
			>
			{#if preview && asksNothing(preview.asks) && preview.addedCount + preview.replacedCount > 0}
				<label class="flex-1"
					><span class="label">Where the values come from</span><input
						name="why"
						maxlength="300"
						class="w-full"
					/></label
				>
				{#if preview.faultCount}<label class="flex min-h-11 items-center gap-3"
						><input type="checkbox" name="leaveOutBad" />leave out the rows at fault</label
					>{/if}
				<button class="button" onclick={() => (step = 'import')} disabled={busy}
					>Import {n(preview.addedCount + preview.replacedCount)}</button
				>
			{/if}
		</div>
	</form>
	{#if preview}
		<h2 class="mt-6">What it would do</h2>
		<p>
			{n(preview.rows)} rows, {preview.encoding}, parted by {preview.separator}{preview.decimalComma
				? ', decimal comma'
				: ''}: {n(preview.addedCount)} new, {n(preview.replacedCount)} replaced,
			<b class={preview.faultCount ? 'text-held' : ''}>{n(preview.faultCount)} cells at fault</b>.
			{#if preview.unknown.length}Headings that are not read: {preview.unknown.join(', ')}.{/if}
		</p>
		<FaultTable faults={preview.faults} count={preview.faultCount} />
		{#if preview.added.length}<h2 class="mt-5">New</h2>
			<ul class="columns-1 sm:columns-2 lg:columns-3">
				{#each preview.added as row (row.row)}<li>
						<span class="font-mono text-soft">{row.row}</span>
						{row.name}{#if row.disagreements.length}<span class="text-due"
								>: {row.disagreements.map((d) => d.message).join(' ')}</span
							>{/if}
					</li>{/each}
			</ul>{/if}
	{/if}
{/if}
