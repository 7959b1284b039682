<script lang="ts">
	/** What is somebody's own: equipment, how much air they take, their last seal checks. */
	import { readable } from '$core/plan/calendar';
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import { type FormRefusal, refusedAt } from '$lib/ui/form/refused';
	import PaperLink from '$lib/ui/records/PaperLink.svelte';
	import { siteMoment } from '$lib/ui/time/moments';

	interface Use {
		task: string;
		startedAt: Date;
		endedAt: Date;
		lPerMin: number | null;
	}
	interface Props {
		data: {
			wearer: { erasedOn: string | null };
			own: {
				out: {
					tag: string;
					model: string;
					size: string;
					since: Date;
					task: string | null;
					dueBackAt: Date | null;
					handOutId: string | null;
				}[];
				items: { tag: string; model: string; size: string; since: string }[];
				uses: Use[];
				sealChecks: { tag: string; doneAt: Date; outcome: string }[];
				consumption: { uses: number; meanLPerMin: number; pessimisticLPerMin: number } | null;
			};
			mayKeep: boolean;
		};
		refusal: FormRefusal | null;
	}
	let { data, refusal }: Props = $props();
	const minutes = (use: Use) =>
		Math.round((use.endedAt.getTime() - use.startedAt.getTime()) / 60_000);
</script>

{#if data.own.out.length}
	<h2 class="mt-6">Out with them now</h2>
	<ul>
		{#each data.own.out as one (one.tag)}
			<li class="rowline flex flex-wrap items-center gap-x-4 py-1">
				<a class="tag inline-flex min-h-11 items-center" href="/items/{one.tag}">{one.tag}</a>
				<span>{one.model}, size {one.size}</span>
				<span>{one.task ?? 'for no one task'}</span>
				<span class="text-soft ml-auto"
					>since {siteMoment(one.since)}{one.dueBackAt
						? `, back by ${siteMoment(one.dueBackAt)}`
						: ''}</span
				>
				{#if one.handOutId}<PaperLink kind="hand-out" id={one.handOutId} />{/if}
			</li>
		{/each}
	</ul>
{/if}
<h2 class="mt-6">Own equipment</h2>
<ul>
	{#each data.own.items as one (one.tag)}
		<li class="rowline flex flex-wrap items-center gap-x-4 py-1">
			<a class="tag inline-flex min-h-11 items-center" href="/items/{one.tag}">{one.tag}</a>
			<span>{one.model}, size {one.size}</span>
			<span class="text-soft">since {readable(one.since)}</span>
			{#if data.mayKeep}<form method="post" action="?/own" class="ml-auto" use:enhance>
					<input type="hidden" name="tag" value={one.tag} /><button
						class="linkish min-h-11"
						name="own"
						value="no">no longer theirs</button
					>
				</form>{/if}
		</li>
	{:else}<li class="text-soft">Nothing is theirs alone.</li>{/each}
</ul>
{#if data.mayKeep && !data.wearer.erasedOn}
	<form method="post" action="?/own" class="mt-1 flex flex-wrap items-end gap-2" use:enhance>
		<Field id="own-tag" label="Make one theirs" refusal={refusedAt(refusal, 'tag')}>
			{#snippet children(field)}<input
					{...field}
					name="tag"
					autocomplete="off"
					placeholder="scan its tag"
					class="tag w-48 uppercase"
				/>{/snippet}
		</Field>
		<button class="button" name="own" value="yes">Theirs</button>
	</form>
{/if}
{#if data.own.uses.length || data.own.sealChecks.length}
	<h2 class="mt-6">What they take</h2>
	{#if data.own.consumption}<p>
			<span class="font-mono text-[1.4rem] font-semibold"
				>{Math.round(data.own.consumption.meanLPerMin)}</span
			>
			L/min on average over {data.own.consumption.uses}
			{data.own.consumption.uses === 1 ? 'use' : 'uses'}; planned with
			<b>{Math.round(data.own.consumption.pessimisticLPerMin)} L/min</b>.
		</p>{/if}
	<ul>
		{#each data.own.uses.slice(0, 6) as use (use.startedAt.getTime())}<li class="rowline py-1">
				{siteMoment(use.startedAt)}: {use.task}, {minutes(use)} min{use.lPerMin === null
					? ''
					: `, ${Math.round(use.lPerMin)} L/min`}
			</li>{/each}
		{#each data.own.sealChecks.slice(0, 4) as check, i (i)}<li class="rowline py-1">
				{siteMoment(check.doneAt)}: seal check of
				<a class="tag" href="/items/{check.tag}">{check.tag}</a>, {check.outcome}
			</li>{/each}
	</ul>
{/if}
