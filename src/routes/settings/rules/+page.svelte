<script lang="ts">
	import Notice from '$lib/ui/form/Notice.svelte';
	import { untrack } from 'svelte';
	import RuleForm from './RuleForm.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const preview = $derived(
		form && 'preview' in form && form.preview ? { of: form.of, preview: form.preview } : null
	);
	let open = $state<string | null>(untrack(() => (data.forModel ? 'new' : null)));
	const ORIGINS = {
		published: 'published',
		'common practice': 'common practice',
		maker: 'maker',
		site: 'site',
		computed: 'computed'
	} as const;
	const origin = (of: { kind: string; source?: string | undefined }) =>
		[ORIGINS[of.kind as keyof typeof ORIGINS] ?? of.kind, of.source].filter(Boolean).join(': ');
</script>

<svelte:head><title>Intervals · Grevan</title></svelte:head>
<p class="mt-4 max-w-[46rem]">
	How often things are done again, and after what. Of all rules that hold for an item the earliest
	wins; the item says each of them under Because. Cylinder tests, fresh air and opened filters have
	rules of their own, which a site does not change.
</p>
{#if form && 'kept' in form}<div class="mt-3 max-w-[46rem]">
		<Notice kind="good"><p role="status">Kept. Every item was worked out by it.</p></Notice>
	</div>{/if}
{#if form && 'ended' in form}<div class="mt-3 max-w-[46rem]">
		<Notice kind="good"><p role="status">Ended. Every item was worked out without it.</p></Notice>
	</div>{/if}
<section aria-labelledby="shipped" class="mt-5">
	<h2 id="shipped">Shipped with the rule set</h2>
	<ul>
		{#each data.shipped as rule (rule.key)}
			<li class="rowline py-2">
				<b>{rule.words}</b>{#if rule.replaced}
					<span class="font-semibold text-due">
						a rule of the site takes its place where it holds</span
					>{/if}<br /><span class="text-soft"
					>{origin(rule.origin)}{rule.origin.kind === 'published' ? '; from memory' : ''}</span
				>
			</li>
		{/each}
	</ul>
</section>
<section aria-labelledby="own" class="mt-6">
	<div class="flex flex-wrap items-center gap-4">
		<h2 id="own">Of this site</h2>
		<button class="button ml-auto" onclick={() => (open = open === 'new' ? null : 'new')}
			>New rule</button
		>
	</div>
	{#if open === 'new'}<RuleForm {data} {refusal} {preview} done={() => (open = null)} />{/if}
	{#if data.own.length === 0 && open !== 'new'}<p class="mt-1">
			None: the shipped rules hold. A stricter one for a dusty place, or for what is kept for
			emergencies, is made here.
		</p>{/if}
	<ul>
		{#each data.own as rule (rule.key)}
			<li class="rowline py-2">
				<div class="flex flex-wrap items-center gap-x-4">
					<span class="flex-1"
						><b>{rule.words}</b>{rule.replaces ? ', in place of the shipped one' : ''}<br /><span
							class="text-soft">{rule.reason || 'no reason given'}</span
						></span
					>
					<button
						class="button"
						aria-expanded={open === rule.key}
						onclick={() => (open = open === rule.key ? null : rule.key)}>Change</button
					>
				</div>
				{#if open === rule.key}<RuleForm
						{data}
						{rule}
						{refusal}
						{preview}
						done={() => (open = null)}
					/>{/if}
			</li>
		{/each}
	</ul>
</section>
{#if data.offered.length}
	<section aria-labelledby="offered" class="mt-6">
		<h2 id="offered">Offered: what many sites have</h2>
		<p class="mt-1 max-w-[46rem]">
			None of them holds until it is taken up; the maker’s figure comes first.
		</p>
		<ul>
			{#each data.offered as rule (rule.key)}
				<li class="rowline py-2">
					<div class="flex flex-wrap items-center gap-x-4">
						<span class="flex-1"
							><b>{rule.words}</b><br /><span class="text-soft">{origin(rule.origin)}</span></span
						>
						<button
							class="button"
							aria-expanded={open === rule.key}
							aria-label="Take up: {rule.words}"
							onclick={() => (open = open === rule.key ? null : rule.key)}>Take it up</button
						>
					</div>
					{#if open === rule.key}<RuleForm
							{data}
							from={rule}
							{refusal}
							{preview}
							done={() => (open = null)}
						/>{/if}
				</li>
			{/each}
		</ul>
	</section>
{/if}
