<script lang="ts">
	/** A sheet that was filled in by hand is typed in: Enter is good and goes on, a code rejects, a figure is a reading. */
	import { readMark } from '$core/inspection/paper';
	import { InputError } from '$core/verdict';
	import { freshId } from '$lib/fresh-id';
	import DayField from '$lib/ui/form/DayField.svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { refusedAt } from '$lib/ui/form/refused';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import type { ActionData, PageData } from './$types';

	interface Props {
		data: PageData;
		form: ActionData;
		/** Stays from sheet to sheet: a pile is of one day and one person. */
		day: string;
		doneBy: string;
	}
	let { data, form, day = $bindable(), doneBy = $bindable() }: Props = $props();
	let id = $state(freshId());
	let typed = $state<Record<string, string>>({});
	let fields = $state<(HTMLInputElement | undefined)[]>([]);
	let send: HTMLButtonElement | undefined = $state();
	const { procedure } = $derived(data);
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const at = (path: string) => refusedAt(refusal, path);
	const FIELDS = $derived(['day', 'doneBy', 'second', ...procedure.steps.map(({ key }) => key)]);
	const read = $derived(
		procedure.steps.map((step) => {
			try {
				return { answer: readMark(step, typed[step.key] ?? ''), wrong: null };
			} catch (error) {
				if (error instanceof InputError) return { answer: null, wrong: error.message };
				throw error;
			}
		})
	);
	const left = $derived(read.filter(({ answer }) => !answer).length);
	const rejects = $derived(read.filter(({ answer }) => answer?.value === 'reject').length);

	/** Enter in an empty field is good; then the next. */
	function next(event: KeyboardEvent, i: number) {
		if (event.key !== 'Enter' || event.isComposing) return;
		event.preventDefault();
		const step = procedure.steps[i];
		if (!step) return;
		if (!typed[step.key]?.trim() && !step.reading) typed[step.key] = 'g';
		if (read[i]?.wrong || !read[i]?.answer) return;
		const after = fields[i + 1];
		if (after) {
			after.focus();
			after.select();
		} else send?.focus();
	}
</script>

{#if form && 'kept' in form && form.outcome}
	<div class="mt-4">
		<Notice kind={form.outcome === 'fail' ? 'refusal' : 'good'}
			><p role="status">
				Kept: {form.outcome}. <a class="linkish" href="/runs/{form.kept}">The inspection</a>. Scan
				the next sheet.
			</p></Notice
		>
	</div>
{:else}
	<form
		method="post"
		class="mt-4"
		use:enhance={() =>
			async ({ result, update }) => {
				await update({ reset: false });
				if (result.type === 'success') id = freshId();
			}}
	>
		<input type="hidden" name="id" value={id} />
		<input type="hidden" name="procedure" value={procedure.key} />
		<input type="hidden" name="version" value={procedure.version} />
		<input type="hidden" name="typed" value={JSON.stringify(typed)} />
		<FormRefusal refusal={refusal && FIELDS.includes(refusal.path ?? '') ? null : refusal} />
		<div class="flex flex-wrap items-start gap-6">
			<DayField
				name="day"
				label="Day on the sheet"
				bind:value={day}
				max={data.today}
				refusal={at('day')}
			/>
			<Field id="doneBy" label="Who did it" refusal={at('doneBy')}>
				{#snippet children(field)}<select {...field} name="doneBy" bind:value={doneBy}
						>{#each data.people as one (one.id)}<option value={one.id}>{one.name}</option
							>{/each}</select
					>{/snippet}
			</Field>
			{#if procedure.steps.some((step) => step.secondPerson)}<Field
					id="second"
					label="Second person"
					refusal={at('second')}
				>
					{#snippet children(field)}<select {...field} name="second"
							><option value="">choose</option>{#each data.people as one (one.id)}<option
									value={one.id}>{one.name}</option
								>{/each}</select
						>{/snippet}
				</Field>{/if}
		</div>
		<p class="text-soft mt-3">
			Enter: good, and on to the next. A code or its beginning, a note after it: reject. n: not
			fitted. A reading in bar; a hold: before, after, seconds.
		</p>
		<ol class="mt-2 max-w-[52rem]">
			{#each procedure.steps as step, i (step.key)}
				{@const { answer, wrong } = read[i] ?? { answer: null, wrong: null }}
				{@const refused = at(step.key)}
				<li
					class="rowline grid grid-cols-[2.2rem_minmax(0,1fr)] items-center gap-x-3 gap-y-1 py-1 sm:grid-cols-[2.2rem_minmax(0,1fr)_14rem_minmax(0,12rem)]"
				>
					<b class="font-mono">{i + 1}</b>
					<label for="step-{i}">{step.title}</label>
					<input
						id="step-{i}"
						bind:this={fields[i]}
						bind:value={typed[step.key]}
						onkeydown={(event) => next(event, i)}
						maxlength="300"
						autocomplete="off"
						autocapitalize="characters"
						aria-invalid={wrong || refused ? 'true' : undefined}
						aria-describedby="said-{i}"
						class="col-start-2 w-full font-mono sm:col-start-auto"
					/>
					<span id="said-{i}" class="col-start-2 flex items-center gap-2 sm:col-start-auto"
						>{#if wrong || refused}<span class="font-semibold text-held">{wrong ?? refused}</span>
						{:else if answer}<StateMark
								state={answer.value === 'reject'
									? 'reject'
									: answer.value === 'good'
										? 'good'
										: 'retired'}
							/>{answer.readings ? 'read' : answer.value}{answer.code
								? ` ${answer.code}`
								: ''}{/if}</span
					>
				</li>
			{/each}
		</ol>
		<div class="mt-4 flex flex-wrap items-center gap-4">
			<button bind:this={send} class="button primary" disabled={left > 0 || !day}
				>Sign what the sheet says</button
			>
			<p class="text-soft">
				{left ? `${left} of ${procedure.steps.length} still to type.` : `${rejects} rejected.`}{day
					? ''
					: ' The day is missing.'}
			</p>
		</div>
	</form>
{/if}
