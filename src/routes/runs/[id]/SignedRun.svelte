<script lang="ts">
	/** A signed run: its verdict, what follows from it, and how it is taken the place of. */
	import PaperLink from '$lib/ui/records/PaperLink.svelte';
	import { rejectCode } from '$core/data/reject-codes';
	import { freshId } from '$lib/fresh-id';
	import Because from '$lib/ui/because/Because.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import type { PageData } from './$types';
	import { siteDay, siteMoment } from '$lib/ui/time/moments';

	interface Props {
		data: PageData;
		now: NonNullable<PageData['now']>;
		refusal: { message: string } | null;
	}
	let { data, now, refusal }: Props = $props();
	/** What a list that proves no inspection was for, when nothing was found. */
	const DONE = {
		inspection: null,
		donning: 'Put on',
		look: 'Looked at',
		closing: 'Closed down',
		change: 'Changed'
	} as const;
	const HEADLINES = {
		fail: 'Failed: held',
		pass: 'Passed',
		'pass, watch': 'Passed, with something to watch'
	} as const;
	const headline = $derived(
		(data.run.outcome !== 'fail' && DONE[data.run.purpose]) || HEADLINES[data.run.outcome ?? 'fail']
	);
	const id = freshId();
</script>

{#if data.supersededBy}<div class="mt-3">
		<Notice kind="caution"
			><p>
				{data.supersededBy.signedAt ? 'No longer stands' : 'About to be replaced'}: {data
					.supersededBy.reason}
				<a class="linkish" href="/runs/{data.supersededBy.id}">The one in its place</a>
			</p></Notice
		>
	</div>{/if}
<div class="mt-4 grid gap-8 lg:grid-cols-[minmax(0,1fr)_20rem]">
	<section aria-labelledby="verdict">
		<h2 id="verdict" class="text-[1.9rem]! leading-tight text-ink!">{headline}</h2>
		<p class="mt-1 text-[1.1rem]">{data.run.reasons?.[0]?.text}</p>
		<p class="text-soft mt-1">
			Signed by {data.signedByName}, {data.run.signedAt ? siteMoment(data.run.signedAt) : ''}. A
			signed inspection is never changed.
		</p>
		{#if data.run.doneAt}<p class="mt-1">
				From paper: done by {data.doneByName} on {siteDay(data.run.doneAt)}, typed in by {data.signedByName}.
			</p>{/if}
		{#if data.run.supersedeReason}<p class="mt-1">
				Takes the place of <a class="linkish" href="/runs/{data.run.supersedes}">an earlier one</a>: {data
					.run.supersedeReason}
			</p>{/if}
		<Because title="{data.item.tag}: {data.run.outcome}" reasons={data.run.reasons ?? []} />
		<p class="mt-4 flex items-center gap-3">
			<span class="text-soft">Now</span>
			<StateMark state={now.verdict.outcome} word size={22} />
		</p>
		{#if data.photos.length}
			<h2 class="mt-6">Pictures</h2>
			<ul class="mt-1 flex flex-wrap gap-3">
				{#each data.photos as photo (photo.id)}<li>
						<a href="/api/photos/{photo.id}" data-sveltekit-reload
							><img
								src="/api/photos/{photo.id}"
								alt="{data.procedure.steps.find((s) => s.key === photo.step)
									?.title}, {photo.by}, {siteMoment(photo.takenAt)}"
								class="h-40 border border-rule"
								loading="lazy"
							/></a
						>
					</li>{/each}
			</ul>
		{/if}
		{#if data.mayInspect && !data.supersededBy}
			<details class="mt-6 max-w-[36rem]" open={refusal !== null}>
				<summary class="linkish min-h-11 cursor-pointer content-center"
					>It does not stand: make another in its place</summary
				>
				<form method="post" action="?/supersede" class="mt-2 grid gap-3">
					<input type="hidden" name="id" value={id} />
					<label class="label" for="reason">Why it does not stand</label>
					<input id="reason" name="reason" maxlength="300" required class="w-full" />
					{#if refusal}<p class="font-semibold text-held" role="alert">{refusal.message}</p>{/if}
					<button class="button justify-self-start">Begin the one in its place</button>
					<p class="text-soft">This one stays on record and counts until the other is signed.</p>
				</form>
			</details>
		{/if}
	</section>
	<div class="grid content-start gap-2">
		{#each now.defects as defect (defect.id)}<a class="button" href="/faults/{defect.id}"
				>{defect.code}: {rejectCode(defect.code).name}</a
			>{/each}
		<a class="button" href="/items/{data.item.tag}">To {data.item.tag}</a>
		<PaperLink kind="inspection" id={data.run.id} class="button" />
		<a class="button" href="/items/{data.item.tag}/history">History</a>
		<a class="button" href="/">To today</a>
	</div>
</div>
