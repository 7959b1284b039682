<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import Notice from '$lib/ui/form/Notice.svelte';
	import ScanForm from '$lib/ui/form/ScanForm.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { siteMoment, siteTime } from '$lib/ui/time/moments';

	let { data, form } = $props();
	const open = $derived(data.sheet.closedAt === null);
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const presented = $derived(form && 'presented' in form ? form.presented : null);
	const latest = $derived(data.seen[0]);
	const expectedSeen = $derived(data.expected - data.missing.length);
	const SHOWN = 60;
</script>

<svelte:head><title>Muster · Grevan</title></svelte:head>
<p class="text-soft"><a class="linkish" href="/items/musters">Musters</a></p>
<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>{data.kind}, {data.place ?? 'every place'}</h1>
	<p class="text-soft">
		{data.by}, {siteMoment(data.sheet.startedAt)}{data.sheet.closedAt
			? ` to ${siteTime(data.sheet.closedAt)}`
			: ''}
	</p>
	<p class="ml-auto text-[1.15rem]" role="status">
		<b>{expectedSeen}</b> of {data.expected} presented{data.seen.length > expectedSeen
			? `, ${data.seen.length - expectedSeen} more not expected`
			: ''}
	</p>
</div>
{#if open && data.keeping}<p class="mt-2 max-w-[46rem]">
		Look at shelf and carrier too: {data.keeping.carrying}.
		{#each data.keeping.unsuited as text (text)}<span class="block font-semibold text-held"
				>{text}</span
			>{/each}
	</p>{/if}
{#if refusal}<div class="mt-3"><Notice kind="refusal"><p>{refusal.message}</p></Notice></div>{/if}
{#if presented?.again}<div class="mt-3">
		<Notice kind="caution"
			><p><span class="tag">{presented.tag}</span> is on the sheet already.</p></Notice
		>
	</div>{:else if presented && !presented.expected}<div class="mt-3">
		<Notice kind="caution"
			><p>
				<span class="tag">{presented.tag}</span> was not expected here; it is on the sheet.
			</p></Notice
		>
	</div>{/if}
<div class="mt-4 grid gap-10 lg:grid-cols-[minmax(0,1fr)_22rem]">
	<section>
		{#if open && data.mayInspect}
			<ScanForm
				action="?/present"
				field="tag"
				label="Scan, one after the other"
				button="On the sheet"
				primary
			/>
			{#if latest && !latest.code}
				{#key latest.tag}
					<form
						method="post"
						action="?/exception"
						use:enhance
						class="mt-4 flex flex-wrap items-end gap-3 border-l-4 border-rule pl-4"
					>
						<input type="hidden" name="tag" value={latest.tag} />
						<div>
							<label class="label" for="what"
								>Wrong with <span class="tag">{latest.tag}</span>, if anything</label
							>
							<select id="what" name="what" class="max-w-full">
								<option value="">nothing</option>
								{#each data.steps as step (step.key)}
									<optgroup label={step.title}>
										{#each step.rejects as { code, name } (code)}<option value="{step.key} {code}"
												>{code}, {name}</option
											>{/each}
									</optgroup>
								{/each}
							</select>
						</div>
						<button class="button">Note it</button>
					</form>
				{/key}
			{/if}
		{/if}
		<h2 class="mt-6">On the sheet, last first</h2>
		{#if data.seen.length === 0}<p class="mt-1">Nothing yet: scan the first tag.</p>{/if}
		<ul>
			{#each data.seen as row (row.tag)}
				<li class="rowline flex min-h-11 flex-wrap items-center gap-x-4 py-1">
					<StateMark state={row.code ? 'held' : 'good'} />
					<a class="tag" href="/items/{row.tag}">{row.tag}</a>
					<span>{row.model}</span>
					{#if row.code}<b>{row.code}, {row.what}: {row.where?.toLowerCase()}</b>{/if}
					<span class="text-soft ml-auto">{row.by} {siteTime(row.seenAt)}</span>
				</li>
			{/each}
		</ul>
	</section>
	<aside class="self-start rounded border-2 border-ink bg-sheet p-4">
		<h2>{open ? 'Not presented yet' : 'Not presented'}: {data.missing.length}</h2>
		<p class="mt-1 flex flex-wrap gap-x-4 gap-y-1">
			{#each data.missing.slice(0, SHOWN) as tag (tag)}<a class="tag linkish" href="/items/{tag}"
					>{tag}</a
				>{/each}
			{#if data.missing.length > SHOWN}<span class="text-soft"
					>and {data.missing.length - SHOWN} more</span
				>{/if}
		</p>
		{#if open && data.mayInspect}
			<form method="post" action="?/close" class="mt-4" use:enhance>
				<button class="button w-full">Close the sheet</button>
				<p class="text-soft mt-1">After that nothing on it is changed.</p>
			</form>
		{/if}
	</aside>
</div>
