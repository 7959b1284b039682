<script lang="ts">
	/** A fit test typed in from a sheet of paper: its figures are judged anew, as it is typed. */
	import { agentsFor } from '$core/fit/agents';
	import { judgeProtocol, standingOf } from '$core/fit/protocols';
	import { InputError } from '$core/verdict';
	import { freshId } from '$lib/fresh-id';
	import DayField from '$lib/ui/form/DayField.svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import { typedNumber } from '$lib/ui/form/number';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import { refusedAt } from '$lib/ui/form/refused';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { untrack } from 'svelte';

	let { data, form } = $props();
	const id = freshId();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const at = (path: string) => refusedAt(refusal, path);
	const FIELDS = ['modelId', 'size', 'testedOn', 'factors', 'method', 'protocol', 'agent'];
	let modelId = $state('');
	let method = $state<'quantitative' | 'qualitative'>('quantitative');
	let key = $state(untrack(() => data.protocols[0]?.key ?? ''));
	let typed = $state<Record<string, string>>({});
	const model = $derived(data.models.find((one) => one.id === modelId));
	const agents = $derived(agentsFor(data.ruleSet, model?.mask ?? 'half'));
	const protocol = $derived(data.protocols.find((one) => one.key === key));
	const factors = $derived(
		Object.fromEntries(
			Object.entries(typed)
				.map(([exercise, text]) => [exercise, typedNumber(text)] as const)
				.filter(([, value]) => Number.isFinite(value) && value > 0)
		)
	);
	const standing = $derived.by(() => {
		if (!protocol) return null;
		const known = Object.fromEntries(
			Object.entries(factors).filter(([exercise]) =>
				protocol.exercises.some((one) => one.key === exercise)
			)
		);
		try {
			const { left, overall } = standingOf(protocol, known);
			const verdict =
				left.length || !model?.mask ? null : judgeProtocol(protocol, known, model.mask);
			return { left, overall, verdict, refusal: null };
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			return { left: [], overall: null, verdict: null, refusal: error.message };
		}
	});
</script>

<svelte:head><title>Fit test from paper · Grevan</title></svelte:head>
<p class="crumb">
	<a class="linkish" href="/people/{data.wearer.id}">{data.wearer.name}</a>
</p>
<h1>Fit test from paper</h1>
<form method="post" class="mt-4 grid max-w-[52rem] gap-5" use:enhance>
	<input type="hidden" name="id" value={id} />
	<FormRefusal refusal={refusal && FIELDS.includes(refusal.path ?? '') ? null : refusal} />
	<div class="grid gap-4 sm:grid-cols-[1fr_8rem_12rem]">
		<Field id="modelId" label="Mask" refusal={at('modelId')}>
			{#snippet children(field)}<select
					{...field}
					name="modelId"
					class="w-full"
					bind:value={modelId}
					><option value="">choose</option>{#each data.models as one (one.id)}<option value={one.id}
							>{one.name}</option
						>{/each}</select
				>{/snippet}
		</Field>
		<PlainField name="size" label="Size" required refusal={at('size')} />
		<DayField
			name="testedOn"
			label="Tested on"
			value={data.asOf}
			max={data.asOf}
			refusal={at('testedOn')}
		/>
	</div>
	<div class="grid gap-4 sm:grid-cols-2">
		<Field id="method" label="How" refusal={at('method')}>
			{#snippet children(field)}<select {...field} name="method" class="w-full" bind:value={method}
					><option value="quantitative">quantitative: a counter</option><option value="qualitative"
						>qualitative: taste or smell</option
					></select
				>{/snippet}
		</Field>
		{#if method === 'quantitative'}
			<Field id="protocol" label="Protocol" refusal={at('protocol')}>
				{#snippet children(field)}<select {...field} name="protocol" class="w-full" bind:value={key}
						>{#each data.protocols as one (one.key)}<option value={one.key}>{one.name}</option
							>{/each}</select
					>{/snippet}
			</Field>
		{/if}
	</div>
	{#if method === 'quantitative' && protocol}
		<fieldset>
			<legend class="label">Factor of each exercise</legend>
			{#if at('factors')}<p class="font-semibold text-held" role="alert">{at('factors')}</p>{/if}
			{#each protocol.exercises as exercise (exercise.key)}
				<div class="rowline grid grid-cols-[1fr_8rem] items-center gap-x-4 py-1">
					<label for="f-{exercise.key}"
						>{exercise.name}
						<span class="text-soft"
							>{exercise.seconds} s{exercise.counted ? '' : ', does not count'}</span
						></label
					>
					<span
						><input type="hidden" name="keys[]" value={exercise.key} /><input
							id="f-{exercise.key}"
							name="factors[]"
							bind:value={typed[exercise.key]}
							inputmode="decimal"
							autocomplete="off"
							class="w-full font-mono"
						/></span
					>
				</div>
			{/each}
		</fieldset>
		{#if standing}
			<p class="flex items-center gap-3 text-[1.15rem]" role="status">
				{#if standing.refusal}<b class="text-held">{standing.refusal}</b>
				{:else if standing.verdict}<StateMark
						state={standing.verdict.outcome === 'pass' ? 'good' : 'reject'}
					/>
					<b>{standing.verdict.outcome === 'pass' ? 'Passed' : 'Not passed'}</b>
					<span>{standing.verdict.reasons.map(({ text }) => text).join(' ')}</span>
				{:else}<span class="text-soft"
						>{standing.overall === null
							? 'Type the factors as the sheet says them, unrounded.'
							: `${standing.overall.toFixed(1)} so far`}{standing.left.length
							? `; ${standing.left.length} still to come`
							: model
								? ''
								: '; choose the mask'}</span
					>{/if}
			</p>
		{/if}
	{:else}
		<Field id="agent" label="Tasted or smelled" refusal={at('agent')}>
			{#snippet children(field)}<select {...field} name="agent" class="w-full max-w-96"
					><option value="">choose</option>{#each agents as one (one.key)}<option value={one.key}
							>{one.name}</option
						>{/each}</select
				>{/snippet}
		</Field>
		<label class="flex min-h-11 items-center gap-3"
			><input type="checkbox" name="noticedNothing" />Nothing was tasted or smelled through all
			exercises, after the screening had been noticed</label
		>
		<p class="text-soft">
			It counts for factors up to 10 only; under the UK rule set not for a full-face mask.
		</p>
	{/if}
	<div class="grid gap-4 sm:grid-cols-2">
		<PlainField name="worn" label="Worn with it" placeholder="glasses, helmet" />
		<PlainField name="tester" label="Who tested, as on the sheet" />
	</div>
	<button class="button primary justify-self-start">Sign it into the record</button>
</form>
