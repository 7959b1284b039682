<script lang="ts">
	/** Takes a table in: a look at what it would do first, then all or what is not at fault; and a whole table back. */
	import type { Snippet } from 'svelte';
	import type { ImportKind } from '$core/csv/kinds';
	import type { PastKind } from '$core/records/past-tables';
	import { enhance } from '$lib/ui/form/enhance';
	import FaultTable from '$lib/ui/form/FaultTable.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import ProgressLine from '$lib/ui/form/ProgressLine.svelte';
	import { TaskProgress } from '$lib/ui/form/task-progress.svelte';
	import { asksNothing, type TableAsks } from '$core/csv/ways';
	import { freshId } from '$lib/fresh-id';
	import TableWays from './TableWays.svelte';
	import { siteMoment } from '$lib/ui/time/moments';

	interface Preview {
		newCount: number;
		faultCount: number;
		faults: { row: number; column: string; message: string }[];
		rows: number;
		unknown: string[];
		encoding: string;
		asks: TableAsks;
	}
	interface Props {
		kind: ImportKind | PastKind;
		/** What a row is called. */
		noun: string;
		form:
			| {
					preview?: Preview;
					imported?: number;
					takenBack?: number;
					refusal?: { message: string; path?: string | null | undefined };
			  }
			| null
			| undefined;
		/** Tables that can be taken back; left out where what came in stays. */
		last?: readonly {
			table: { id: string; rows: number; doneAt: Date; undoneAt: Date | null };
			by: string;
		}[];
		/** What was taken in, and what is to be done next. */
		done: Snippet;
	}
	let { kind, noun, form, last = [], done }: Props = $props();
	let id = $state(freshId());
	let step = $state<'preview' | 'import'>('preview');
	let busy = $state(false);
	const task = new TaskProgress();
	$effect(() => (busy && step === 'import' ? task.follow(id) : undefined));
	async function stop() {
		await fetch(`/api/imports/${id}`, { method: 'DELETE' }).catch(() => null);
		if (task.progress) task.progress.cancelled = true;
	}
	const preview = $derived(form?.preview ?? null);
</script>

<p class="mt-2">
	<a class="button" href="/tables/{kind}" download>Get an empty table</a>
</p>
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
			if (result.type === 'success' && step === 'import') id = freshId();
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
	<TableWays asks={preview?.asks ?? null} />
	{#if form?.refusal}<Notice kind="refusal"><p>{form.refusal.message}</p></Notice>{/if}
	{#if form?.imported !== undefined}<Notice kind="good"
			><p role="status">{form.imported} {noun} taken in. {@render done()}</p></Notice
		>{/if}
	{#if form?.takenBack !== undefined}<Notice kind="good"
			><p role="status">
				Taken back: {form.takenBack} rows are gone, as if they had never come in.
			</p></Notice
		>{/if}
	<div class="flex flex-wrap items-center gap-3">
		<button class="button primary" onclick={() => (step = 'preview')} disabled={busy}
			>{busy ? 'Reading ...' : 'Look at it first'}</button
		>
		{#if preview?.newCount && asksNothing(preview.asks)}
			{#if preview.faultCount}<label class="flex min-h-11 items-center gap-3"
					><input type="checkbox" name="leaveOutBad" />leave out the rows at fault</label
				>{/if}
			<button class="button" onclick={() => (step = 'import')} disabled={busy}
				>Take in {preview.newCount}</button
			>
		{/if}
	</div>
</form>
{#if busy && step === 'import'}
	<div class="mt-4 max-w-[46rem]">
		<ProgressLine
			progress={task.progress}
			waiting="Reading …"
			stop="Stop: nothing is taken in"
			onstop={stop}
		/>
	</div>
{/if}
{#if preview}
	<h2 class="mt-6">What it would do</h2>
	<p>
		{preview.rows} rows, {preview.encoding}: {preview.newCount} new,
		<b class={preview.faultCount ? 'text-held' : ''}
			>{preview.faultCount} {preview.faultCount === 1 ? 'cell' : 'cells'} at fault</b
		>.
		{#if preview.unknown.length}Headings that are not read: {preview.unknown.join(', ')}.{/if}
	</p>
	<FaultTable faults={preview.faults} count={preview.faultCount} />
{/if}
{#if last.length}
	<h2 class="mt-6">Tables taken in</h2>
	<ul class="max-w-[46rem]">
		{#each last as { table, by } (table.id)}
			<li class="rowline flex min-h-11 flex-wrap items-center gap-x-4">
				<span>{siteMoment(table.doneAt)}: <b>{table.rows}</b> {noun}, {by}</span>
				{#if table.undoneAt}<span class="text-soft">taken back {siteMoment(table.undoneAt)}</span>
				{:else}<form method="post" action="?/takeBack" class="ml-auto" use:enhance>
						<input type="hidden" name="id" value={table.id} />
						<button class="linkish min-h-11">Take all of it back</button>
					</form>{/if}
			</li>
		{/each}
	</ul>
{/if}
