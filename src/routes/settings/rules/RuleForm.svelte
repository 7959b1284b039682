<script lang="ts">
	/** A rule of intervals: what is done again, how often, for what; a look at what it would do, then keeping it. */
	import { FAMILIES } from '$core/data/families';
	import { recordOf } from '$core/data/family-records';
	import { RULE_WHATS, type RuleWhat } from '$core/plan/rules';
	import { USE_PATTERNS } from '$core/site/places';
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import { type FormRefusal, refusedAt } from '$lib/ui/form/refused';
	import { untrack } from 'svelte';
	import type { PageData } from './$types';
	import Preview from './Preview.svelte';

	interface Props {
		data: PageData;
		/** Left out: a new one. */
		rule?: PageData['own'][number];
		refusal: FormRefusal | null;
		preview: { of: string; preview: Parameters<typeof Preview>[1]['preview'] } | null;
		done: () => void;
	}
	let { data, rule, refusal, preview, done }: Props = $props();
	const id = untrack(() => rule?.id ?? crypto.randomUUID());
	let what = $state<RuleWhat>(untrack(() => rule?.what ?? 'inspection'));
	const WORDS: Record<RuleWhat, string> = {
		inspection: 'a thorough inspection',
		'bench test': 'a test on the pressure bench'
	};
	const FIELDS = [
		'every',
		'windowDays',
		'families',
		'modelId',
		'placeId',
		'replaces',
		'reason',
		'meant'
	];
	const at = (path: string) => refusedAt(refusal, path);
	const own = $derived(preview?.of === id ? preview.preview : null);
	const families = $derived(
		FAMILIES.filter(({ family }) => what !== 'bench test' || recordOf(family).bench !== null)
	);
	const shipped = $derived(data.shipped.filter((one) => one.what === what));
</script>

<form
	method="post"
	action="?/preview"
	class="mt-3 grid max-w-[52rem] gap-4 border-l-4 border-accent pl-4"
	use:enhance={() =>
		async ({ result, update, action }) => {
			await update({ reset: false });
			if (result.type === 'success' && action.search.includes('save')) done();
		}}
>
	<input type="hidden" name="id" value={id} />
	<input type="hidden" name="version" value={rule?.version ?? 0} />
	{#if refusal && !FIELDS.includes(refusal.path ?? '')}<Notice kind="refusal"
			><p>{refusal.message}</p></Notice
		>{/if}
	<div class="grid items-start gap-4 sm:grid-cols-[1fr_8rem_8rem_10rem]">
		<Field id="what-{id}" label="What is done">
			{#snippet children(field)}<select {...field} name="what" class="w-full" bind:value={what}
					>{#each RULE_WHATS as one (one)}<option value={one}>{WORDS[one]}</option>{/each}</select
				>{/snippet}
		</Field>
		<PlainField
			name="every"
			label="Every"
			inputmode="numeric"
			value={rule ? (rule.everyMonths ?? rule.everyDays) : ''}
			mono
			required
			refusal={at('every')}
		/>
		<Field id="unit-{id}" label="Unit">
			{#snippet children(field)}<select {...field} name="unit" class="w-full"
					><option value="days" selected={rule?.everyDays !== null}>days</option><option
						value="months"
						selected={rule !== undefined && rule.everyMonths !== null}>months</option
					></select
				>{/snippet}
		</Field>
		<PlainField
			name="windowDays"
			label="Due, days before"
			inputmode="numeric"
			value={rule?.windowDays ?? 2}
			mono
			required
			refusal={at('windowDays')}
		/>
	</div>
	<fieldset>
		<legend class="label">Of which kinds; none ticked: all</legend>
		{#if at('families')}<p class="font-semibold text-held" role="alert">{at('families')}</p>{/if}
		<div class="grid gap-x-5 sm:grid-cols-3">
			{#each families as { family, plural } (family)}<label class="flex min-h-11 items-center gap-2"
					><input
						type="checkbox"
						name="families[]"
						value={family}
						checked={rule?.families.includes(family)}
					/>{plural}</label
				>{/each}
		</div>
	</fieldset>
	<div class="grid items-start gap-4 sm:grid-cols-3">
		<Field id="model-{id}" label="Of one model" refusal={at('modelId')}>
			{#snippet children(field)}<select {...field} name="modelId" class="w-full"
					><option value="">any</option>{#each data.models as model (model.id)}<option
							value={model.id}
							selected={model.id === rule?.modelId}>{model.name}</option
						>{/each}</select
				>{/snippet}
		</Field>
		<Field id="pattern-{id}" label="In use that is">
			{#snippet children(field)}<select {...field} name="usePattern" class="w-full"
					><option value="">any</option>{#each USE_PATTERNS as pattern (pattern)}<option
							value={pattern}
							selected={pattern === rule?.usePattern}>{pattern}</option
						>{/each}</select
				>{/snippet}
		</Field>
		<Field id="place-{id}" label="At one place" refusal={at('placeId')}>
			{#snippet children(field)}<select {...field} name="placeId" class="w-full"
					><option value="">any</option>{#each data.places as place (place.id)}<option
							value={place.id}
							selected={place.id === rule?.placeId}>{place.name}</option
						>{/each}</select
				>{/snippet}
		</Field>
	</div>
	<Field
		id="replaces-{id}"
		label="Beside the shipped rules, or in place of one"
		hint="Beside them the earlier one wins: that can only be stricter. In place of one it may be looser, with a reason."
		refusal={at('replaces')}
	>
		{#snippet children(field)}<select {...field} name="replaces" class="w-full"
				><option value="">beside them</option>{#each shipped as one (one.key)}<option
						value={one.key}
						selected={one.key === rule?.replaces}>in place of: {one.words}</option
					>{/each}</select
			>{/snippet}
	</Field>
	<PlainField name="reason" label="Why" value={rule?.reason ?? ''} refusal={at('reason')} />
	{#if own}<Preview preview={own} />{/if}
	{#if at('meant')}<p class="font-semibold text-held" role="alert">{at('meant')}</p>
		<label class="flex min-h-11 items-center gap-3"
			><input type="checkbox" name="meant" /> it is meant</label
		>{/if}
	<div class="flex flex-wrap gap-3">
		<button class="button {own ? '' : 'primary'}">Look at what it would do</button>
		<button class="button {own ? 'primary' : ''}" formaction="?/save">Keep the rule</button>
	</div>
</form>
{#if rule}
	<form
		method="post"
		action="?/end"
		class="mt-3 flex max-w-[52rem] flex-wrap items-end gap-3 border-l-4 border-accent pl-4"
		use:enhance
	>
		<input type="hidden" name="id" value={rule.id} /><input
			type="hidden"
			name="version"
			value={rule.version}
		/>
		<div class="min-w-[16rem] flex-1">
			<PlainField name="reason" label="Why it is not needed any more" refusal={at('endReason')} />
		</div>
		<button class="button">End the rule</button>
	</form>
{/if}
