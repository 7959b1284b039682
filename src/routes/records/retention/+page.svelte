<script lang="ts">
	/** How long what stands beside the record is kept, and what would be let go of. */
	import { readable } from '$core/plan/calendar';
	import { enhance } from '$lib/ui/form/enhance';
	import Notice from '$lib/ui/form/Notice.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
</script>

<svelte:head><title>How long things are kept · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/records">Records</a></p>
<h1>How long things are kept</h1>
<p class="mt-1 max-w-[46rem]">
	The record itself stays: inspections, tests, repairs, hand-outs, and the log. What stands beside
	it may be let go of after a time that the site chooses; local law says how long it must, and how
	long it may be kept. Nothing goes by itself: an admin looks what it is, and lets go of it. That is
	recorded, and the log still proves.
</p>
{#if refusal}<div class="mt-3">
		<Notice kind="refusal"><p role="status">{refusal.message}</p></Notice>
	</div>{/if}
{#if form && 'dropped' in form}<div class="mt-3">
		<Notice kind="good"
			><p role="status">
				Let go of: {form.kind}, {form.dropped} rows. Backups from before still have them.
			</p></Notice
		>
	</div>{/if}
<ul class="mt-4 max-w-[56rem]">
	{#each data.kinds as one (one.kind)}
		<li class="rowline py-3">
			<h2 class="first-letter:uppercase">{one.kind}</h2>
			<p>{one.what} <span class="text-soft">What stays: {one.stays.toLowerCase()}</span></p>
			<div class="mt-2 flex flex-wrap items-end gap-x-6 gap-y-3">
				{#if data.mayKeep}
					<form
						method="post"
						action="?/set"
						class="flex flex-wrap items-end gap-3"
						use:enhance={() =>
							async ({ update }) =>
								update({ reset: false })}
					>
						<input type="hidden" name="kind" value={one.kind} />
						<input type="hidden" name="version" value={one.version} />
						<label
							><span class="label">Kept for, months (empty: for ever)</span><input
								name="keepMonths"
								type="number"
								min={one.least}
								max={data.most}
								value={one.keepMonths ?? ''}
								class="w-32 font-mono"
							/></label
						>
						<button class="button">Keep it so</button>
					</form>
				{:else}<p>
						{one.keepMonths === null ? 'Kept for ever.' : `Kept for ${one.keepMonths} months.`}
					</p>{/if}
				{#if one.old && one.before}
					{#if one.old.count === 0}<p class="min-h-11 content-center text-soft">
							Nothing is older than {readable(one.before)}.
						</p>
					{:else}
						<p class="min-h-11 content-center">
							<b>{one.old.count.toLocaleString('en-GB')}</b> from before {readable(one.before)}{one
								.old.oldest
								? `, the oldest of ${readable(one.old.oldest)}`
								: ''}.
						</p>
						{#if data.mayKeep}<form method="post" action="?/drop" use:enhance>
								<input type="hidden" name="kind" value={one.kind} />
								<input type="hidden" name="version" value={one.version} />
								<button class="button">Let go of {one.old.count.toLocaleString('en-GB')}</button>
							</form>{/if}
					{/if}
				{/if}
			</div>
		</li>
	{/each}
</ul>
