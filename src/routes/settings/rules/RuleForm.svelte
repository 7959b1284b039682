<script lang="ts">
	/** A rule of intervals: what is done again, how often, for what; a look at what it would do, then keeping it. */
	import { EVENT_WHATS, EVENT_WORDS } from '$core/plan/events';
	import type { RuleWhat } from '$core/plan/rules';
	import { USE_PATTERNS } from '$core/site/places';
	import { freshId } from '$lib/fresh-id';
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
		/** What a new one begins with. */
		from?: PageData['offered'][number];
		refusal: FormRefusal | null;
		preview: { of: string; preview: Parameters<typeof Preview>[1]['preview'] } | null;
		done: () => void;
	}
	let { data, rule, from, refusal, preview, done }: Props = $props();
	const id = untrack(() => rule?.key ?? freshId());
	const start = untrack(() => rule ?? from);
	let what = $state<RuleWhat>(start?.what ?? 'inspection');
	let detail = $state(start?.detail ?? '');
	const WORDS: Record<RuleWhat, string> = {
		inspection: 'a thorough inspection',
		'bench test': 'a test on the pressure bench',
		list: 'another list',
		service: 'a job on it: a part changed, an overhaul'
	};
	const [asked] = Object.entries(start?.every ?? {});
	/** The unit of an interval, or what it follows. */
	let unit = $state(asked?.[0] === 'after' ? `after ${asked[1]}` : (asked?.[0] ?? 'days'));
	const UNITS = [
		['days', 'days'],
		['months', 'months'],
		['uses', 'uses'],
		['hours', 'hours of use'],
		['cycles', 'fillings']
	] as const;
	const BEFORE: Record<string, string> = {
		uses: 'Due, uses before',
		hours: 'Due, hours before',
		cycles: 'Due, fillings before'
	};
	const follows = $derived(unit.startsWith('after '));
	const FIELDS = [
		'detail',
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
	const choices = $derived(data.choices.filter((one) => one.what === what));
	const families = $derived(
		(choices.find((one) => one.detail === detail) ?? choices[0])?.families ?? []
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
	<div class="grid items-start gap-4 sm:grid-cols-2">
		<Field id="what-{id}" label="What is done">
			{#snippet children(field)}<select
					{...field}
					name="what"
					class="w-full"
					bind:value={what}
					onchange={() => (detail = choices[0]?.detail ?? '')}
					>{#each Object.entries(WORDS) as [key, words] (key)}<option value={key}>{words}</option
						>{/each}</select
				>{/snippet}
		</Field>
		{#if choices.length > 1}
			<Field id="detail-{id}" label="Which one" refusal={at('detail')}>
				{#snippet children(field)}<select
						{...field}
						name="detail"
						class="w-full"
						bind:value={detail}
						>{#each choices as one (one.detail)}<option value={one.detail}>{one.name}</option
							>{/each}</select
					>{/snippet}
			</Field>
		{:else}<input type="hidden" name="detail" value={detail} />{/if}
	</div>
	<div class="grid items-start gap-4 sm:grid-cols-[8rem_14rem_10rem]">
		{#if follows}<input type="hidden" name="every" value="1" /><input
				type="hidden"
				name="windowDays"
				value="0"
			/><span class="label self-end pb-3">Every time</span>{:else}
			<PlainField
				name="every"
				label="Every"
				inputmode="numeric"
				value={typeof asked?.[1] === 'number' ? asked[1] : ''}
				mono
				required
				refusal={at('every')}
			/>{/if}
		<Field id="unit-{id}" label="Counted in, or after what">
			{#snippet children(field)}<select {...field} name="unit" class="w-full" bind:value={unit}
					>{#each UNITS as [key, words] (key)}<option value={key}>{words}</option
						>{/each}{#each EVENT_WHATS as event (event)}<option value="after {event}"
							>{EVENT_WORDS[event].after}</option
						>{/each}</select
				>{/snippet}
		</Field>
		{#if !follows}
			<PlainField
				name="windowDays"
				label={BEFORE[unit] ?? 'Due, days before'}
				inputmode="numeric"
				value={start?.window ?? 2}
				mono
				required
				refusal={at('windowDays')}
			/>{/if}
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
						checked={start?.families.includes(family)}
					/>{plural}</label
				>{/each}
		</div>
	</fieldset>
	<div class="grid items-start gap-4 sm:grid-cols-3">
		<Field id="model-{id}" label="Of one model" refusal={at('modelId')}>
			{#snippet children(field)}<select {...field} name="modelId" class="w-full"
					><option value="">any</option>{#each data.models as model (model.id)}<option
							value={model.id}
							selected={model.id === (start ? start.modelId : data.forModel?.id)}
							>{model.name}</option
						>{/each}</select
				>{/snippet}
		</Field>
		<Field id="pattern-{id}" label="In use that is">
			{#snippet children(field)}<select {...field} name="usePattern" class="w-full"
					><option value="">any</option>{#each USE_PATTERNS as pattern (pattern)}<option
							value={pattern}
							selected={pattern === start?.usePattern}>{pattern}</option
						>{/each}</select
				>{/snippet}
		</Field>
		<Field id="place-{id}" label="At one place" refusal={at('placeId')}>
			{#snippet children(field)}<select {...field} name="placeId" class="w-full"
					><option value="">any</option>{#each data.places as place (place.id)}<option
							value={place.id}
							selected={place.id === start?.placeId}>{place.name}</option
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
						selected={one.key === start?.replaces}>in place of: {one.words}</option
					>{/each}</select
			>{/snippet}
	</Field>
	<PlainField
		name="reason"
		label="Why"
		value={rule?.reason ?? from?.origin.source ?? ''}
		refusal={at('reason')}
	/>
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
		<input type="hidden" name="id" value={rule.key} /><input
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
