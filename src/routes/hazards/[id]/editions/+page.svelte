<script lang="ts">
	import PaperLink from '$lib/ui/records/PaperLink.svelte';
	import { siteMoment } from '$lib/ui/time/moments';

	let { data } = $props();
	const when = (at: Date) => siteMoment(at);
</script>

<svelte:head><title>Editions, {data.plan.task} · Grevan</title></svelte:head>
<p class="text-soft">
	<a class="linkish" href="/hazards/{data.plan.id}">Plan {data.plan.number}: {data.plan.task}</a>,
	{data.plan.place}
</p>
<div class="flex flex-wrap items-center gap-x-4">
	<h1>Editions, newest first</h1>
	{#if data.maySeeWearers}<PaperLink
			kind="task"
			id={data.plan.id}
			words="The task and who wore what (PDF)"
		/>{/if}
</div>
<ol class="mt-4">
	{#each data.versions as version (version.edition)}
		<li class="rowline grid gap-x-6 gap-y-2 py-4 md:grid-cols-[15rem_1fr]">
			<div>
				<b class="text-[1.1rem]"
					>{version.edition ? `Edition ${version.edition}` : 'Working draft, not approved'}</b
				>
				<p class="text-soft">
					{version.edition ? 'approved by' : 'last changed by'}
					{version.by}<br />{when(version.at)}
				</p>
				{#if version.outcome}<p>{version.outcome}</p>{/if}
				{#if version.note}<p class="mt-1">“{version.note}”</p>{/if}
			</div>
			{#if version.changes === null}
				<p class="text-soft">The first, with {version.contaminants} contaminants.</p>
			{:else if version.changes.length === 0}
				<p class="text-soft">Nothing differs from the one before; approved again.</p>
			{:else}
				<table class="w-full text-left">
					<caption class="sr-only">What changed</caption>
					<thead class="text-soft text-[0.9rem]"
						><tr
							><th class="font-semibold">What</th><th class="font-semibold">before</th><th
								class="font-semibold">after</th
							></tr
						></thead
					>
					<tbody
						>{#each version.changes as change (change.what)}<tr
								class="border-t border-rule align-top"
								><td class="py-1 pr-4 font-semibold">{change.what}</td><td class="pr-4"
									>{change.before}</td
								><td><b>{change.after}</b></td></tr
							>{/each}</tbody
					>
				</table>
			{/if}
		</li>
	{/each}
</ol>
{#if data.flags.length}
	<h2 class="mt-8">What spoke against it</h2>
	<ul class="mt-1">
		{#each data.flags as flag (flag.id)}
			<li class="rowline py-3">
				<p>{flag.text}</p>
				<p class="text-soft">
					{flag.by}, {when(flag.at)}{flag.clearedAt
						? `. Looked into ${when(flag.clearedAt)}: ${flag.clearedWhy}`
						: '. Nobody has looked into it yet.'}
				</p>
			</li>
		{/each}
	</ul>
{/if}
