<script lang="ts">
	import { tick, untrack } from 'svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import GripVertical from '@lucide/svelte/icons/grip-vertical';
	import { dragHandle, dragHandleZone, type DndEvent } from 'svelte-dnd-action';
	import { editionChanges } from '$core/inspection/edition';
	import type { Step } from '$core/inspection/procedure';
	import { freshId } from '$lib/fresh-id';
	import Airway from '$lib/ui/airway/Airway.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import EditionChanges from '../EditionChanges.svelte';
	import StepForm from './StepForm.svelte';

	let { data, form } = $props();
	type Row = Step & { id: string };
	let rows = $state<Row[]>(untrack(() => data.procedure.steps.map((s) => ({ ...s, id: s.key }))));
	let name = $state(untrack(() => data.procedure.name));
	let open = $state<string | null>(null);
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	/** The step that a fault names. */
	const faultAt = $derived(Number(/^steps\.(\d+)/.exec(refusal?.path ?? '')?.[1] ?? -1));
	const steps = $derived(rows.map(({ id: _, ...step }): Step => step));
	const changes = $derived(editionChanges(data.procedure, { ...data.procedure, steps }));
	const marks = $derived(
		Object.fromEntries(
			data.stations.map((station) => {
				const n = steps.filter((s) => s.station === station.key).length;
				return [
					station.key,
					n
						? { mark: 'good' as const, says: `${n} ${n === 1 ? 'step' : 'steps'}` }
						: { mark: 'open' as const, says: 'no step' }
				];
			})
		)
	);

	function dragged(event: CustomEvent<DndEvent<Row>>) {
		rows = event.detail.items;
	}
	async function move(index: number, by: number) {
		const to = index + by;
		const [one] = rows.splice(index, 1);
		if (one) rows.splice(to, 0, one);
		await tick();
		document.getElementById(`move-${one?.id}-${by}`)?.focus();
	}
	function add(index: number) {
		const key = `step-${freshId().slice(0, 8)}`;
		const station = rows[index]?.station ?? data.stations[0]?.key ?? '';
		rows.splice(index + 1, 0, {
			id: key,
			key,
			station,
			title: '',
			action: '',
			good: '',
			why: '',
			rejects: [],
			kind: 'look'
		});
		open = key;
	}
</script>

<svelte:head><title>New version of {data.procedure.name} · Grevan</title></svelte:head>
<p class="text-soft">
	<a class="linkish" href="/items/procedures/{data.procedure.key}">{data.procedure.name}</a>
</p>
<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>New version</h1>
	<p class="text-soft">from {data.name}; runs that are open go on under the one they began with</p>
</div>
{#if !data.mayEdit}<div class="mt-4">
		<Notice><p>A supervisor changes procedures.</p></Notice>
	</div>
{:else}
	<div class="mt-3">
		<Airway stations={data.stations} {marks} label="Airway, with the steps at each station" />
	</div>
	{#if refusal}<div class="mt-3"><Notice kind="refusal"><p>{refusal.message}</p></Notice></div>{/if}
	<div class="mt-4 grid gap-8 lg:grid-cols-[minmax(0,1fr)_20rem]">
		<section aria-labelledby="steps">
			<h2 id="steps">Steps: drag by the handle, or move with the arrows</h2>
			<ol
				use:dragHandleZone={{ items: rows, flipDurationMs: 120, dropTargetStyle: {} }}
				onconsider={dragged}
				onfinalize={dragged}
			>
				{#each rows as row, i (row.id)}
					<li
						class="rowline bg-paper py-1 {i === faultAt ? 'border-l-4 border-l-held pl-2' : ''}"
						aria-label={row.title || 'new step'}
					>
						<div class="flex items-center gap-2">
							<span
								use:dragHandle
								aria-label="Drag {row.title || 'new step'}"
								class="grid h-11 w-9 cursor-grab place-items-center"
								><GripVertical size={20} aria-hidden="true" /></span
							>
							<span class="text-soft w-7 font-mono">{i + 1}</span>
							<span class="min-w-0 flex-1"
								><b>{row.title || 'new step'}</b>
								<span class="text-soft"
									>{data.stations.find((s) => s.key === row.station)?.name ?? 'no station'}</span
								></span
							>
							<button
								type="button"
								id="move-{row.id}--1"
								class="button px-3!"
								disabled={i === 0}
								onclick={() => move(i, -1)}
								aria-label="Up: {row.title}">↑</button
							>
							<button
								type="button"
								id="move-{row.id}-1"
								class="button px-3!"
								disabled={i === rows.length - 1}
								onclick={() => move(i, 1)}
								aria-label="Down: {row.title}">↓</button
							>
							<button
								type="button"
								class="button"
								aria-expanded={open === row.id}
								onclick={() => (open = open === row.id ? null : row.id)}>Change</button
							>
						</div>
						{#if open === row.id}<StepForm
								bind:step={rows[i]!}
								stations={data.stations}
								codes={data.codes}
								onadd={() => add(i)}
								onremove={() => rows.splice(i, 1)}
							/>{/if}
					</li>
				{/each}
			</ol>
		</section>
		<aside class="self-start rounded border-2 border-ink bg-sheet p-4 lg:sticky lg:top-4">
			<h2>What it changes</h2>
			{#if changes.length === 0}<p class="text-soft">Nothing yet.</p>{/if}
			<EditionChanges {changes} />
			<form
				method="post"
				class="mt-4 grid gap-3"
				use:enhance={() =>
					({ update }) =>
						update({ reset: false })}
			>
				<input type="hidden" name="from" value={data.procedure.version} />
				<input type="hidden" name="steps" value={JSON.stringify(steps)} />
				<label
					><span class="label">Name</span><input
						name="name"
						bind:value={name}
						maxlength="120"
						class="w-full"
					/></label
				>
				<label
					><span class="label">Why it is changed</span><input
						name="reason"
						maxlength="300"
						class="w-full"
					/></label
				>
				<button
					class="button primary"
					disabled={changes.length === 0 && name === data.procedure.name}>Put it in force</button
				>
			</form>
		</aside>
	</div>
{/if}
