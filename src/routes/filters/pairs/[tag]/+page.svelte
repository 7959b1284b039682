<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import { EARLY_REASONS, type DiscardReason } from '$core/filters/ledger';
	import { clock } from '$core/filters/schedule';
	import Because from '$lib/ui/because/Because.svelte';
	import Field from '$lib/ui/form/Field.svelte';
	import FilterBand from '$lib/ui/form/FilterBand.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import Reading from '$lib/ui/reading/Reading.svelte';
	import { readable } from '$core/plan/calendar';
	import { freshId } from '$lib/fresh-id';
	import { siteMoment } from '$lib/ui/time/moments';
	import DayField from '$lib/ui/form/DayField.svelte';
	import { refusedAt } from '$lib/ui/form/refused';

	import Layers from './Layers.svelte';

	let { data, form } = $props();
	let wearId = $state(freshId());
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const at = (path: string) => refusedAt(refusal, path);
	const scheme = $derived(data.site.codeScheme);
	const open = $derived(data.pair.discardedAt === null);
	const used = $derived(data.ledger.used);
	const reasonWords = (reason: string | null) =>
		EARLY_REASONS[(reason ?? '') as DiscardReason]?.words ?? reason ?? '';
</script>

<svelte:head><title>{data.tag} · Grevan</title></svelte:head>
<p class="text-soft"><a class="linkish" href="/filters/opened">Opened pairs</a></p>
<div class="flex flex-wrap items-center gap-4">
	<h1 class="tag border border-ink px-3 py-1">{data.tag}</h1>
	<FilterBand
		code={(scheme === 'us' ? data.model.codeUs : data.model.codeEn) ?? data.model.name}
		{scheme}
	/>
	<p>
		<b>{data.model.name}</b>, lot
		<a class="linkish font-mono" href="/filters/lots/{data.lot.id}">{data.lot.lot}</a><br /><span
			class="text-soft"
			>{data.pair.sealedUntil ? 'fitted sealed' : 'opened'}
			{readable(data.pair.openedOn)}, {data.pair.initials}, on
			<a class="linkish" href="/items/{data.itemTag}">{data.itemTag}</a>{data.plan
				? ` for “${data.plan}”`
				: ''}</span
		>
	</p>
	<a class="button ml-auto" href="/filters/pairs/{data.tag}/label">Labels</a>
</div>
{#if !open}<div class="mt-4">
		<Notice kind="caution"
			><p>
				<b>Out of use</b> since {data.pair.discardedAt ? siteMoment(data.pair.discardedAt) : ''}: {reasonWords(
					data.pair.discardReason
				)}.
			</p></Notice
		>
	</div>{/if}
{#if data.lot.recalledAt}<div class="mt-4">
		<Notice kind="refusal"
			><p><b>Its lot was recalled:</b> {data.lot.recallReason}. Take it off the mask.</p></Notice
		>
	</div>{/if}
{#if refusal && !['minutes', 'wornOn', 'planId', 'reason', 'lotId'].includes(refusal.path ?? '')}<div
		class="mt-4"
	>
		<Notice kind="refusal"><p>{refusal.message}</p></Notice>
	</div>{/if}
<div class="mt-5 grid gap-8 lg:grid-cols-[minmax(0,1fr)_21rem]">
	<section aria-labelledby="ledger">
		<h2 id="ledger">Wear ledger</h2>
		<div class="mt-2 flex flex-wrap items-end gap-x-8 gap-y-3">
			<Reading
				label="Life used"
				value={data.pair.changeAfterMin === null && used === 0
					? 'by feel'
					: String(Math.round(used * 100))}
				unit={data.pair.changeAfterMin === null && used === 0 ? '' : '%'}
			/>
			<Reading label="Worn" value={clock(data.ledger.wornMin)} large={false} />
			<Reading label="Last day" value={readable(data.change.changeOn)} large={false} />
			<Because
				title="Last day of {data.tag}"
				reasons={[...data.change.reasons, ...data.ledger.reasons]}
			/>
		</div>
		<svg
			viewBox="0 0 400 16"
			class="mt-3 h-4 w-full max-w-[40rem]"
			preserveAspectRatio="none"
			aria-hidden="true"
		>
			<rect width="400" height="16" fill="var(--tint)" />
			{#each data.ledger.lines as line, i (i)}
				<rect
					x={Math.min(400, (line.used - line.fraction) * 400)}
					width={Math.max(1, Math.min(400, line.fraction * 400) - 1.5)}
					height="16"
					fill={line.used > 1 ? 'var(--held)' : 'var(--accent)'}
				/>
			{/each}
		</svg>
		{#if data.pair.sealedUntil}<p class="mt-2">
				Sealed in its pack until somebody flees with it; then it is taken out of use.
			</p>{:else if data.ledger.lines.length === 0}<p class="mt-2">
				No task entered yet. Until then each day from the opening on counts as a whole shift.
			</p>{:else}
			<table class="mt-3 w-full text-left">
				<caption class="sr-only">Tasks it was worn for</caption>
				<thead class="text-soft text-[0.9rem]"
					><tr
						><th class="font-semibold">Day</th><th class="font-semibold">Task</th><th
							class="text-right font-semibold">Worn</th
						><th class="text-right font-semibold">of a life of</th><th
							class="text-right font-semibold">Used in all</th
						></tr
					></thead
				>
				<tbody>
					{#each data.ledger.lines as line, i (i)}<tr class="border-t border-rule"
							><td class="py-2">{readable(line.on)}</td><td>{line.task}</td><td
								class="text-right font-mono">{clock(line.minutes)}</td
							><td class="text-right font-mono"
								>{line.lifeMin === null ? 'by resistance' : clock(line.lifeMin)}</td
							><td class="text-right font-mono {line.used >= 1 ? 'font-bold text-held' : ''}"
								>{Number.isFinite(line.used) ? Math.round(line.used * 100) : 100} %</td
							></tr
						>{/each}
				</tbody>
			</table>
		{/if}
		<Layers {data} refusal={at('lotId')} />
	</section>
	{#if open && data.mayOpen}
		<section class="self-start rounded border-2 border-ink bg-sheet p-4" aria-labelledby="enter">
			{#if !data.pair.sealedUntil}<h2 id="enter" class="text-[1.15rem]! text-ink!">It was worn</h2>
				<form
					method="post"
					action="?/wear"
					class="mt-3 grid gap-4"
					use:enhance={() =>
						async ({ result, update }) => {
							await update({ reset: false });
							if (result.type === 'success') wearId = freshId();
						}}
				>
					<input type="hidden" name="id" value={wearId} />
					<Field id="planId" label="For the task" refusal={at('planId')}>
						{#snippet children(field)}<select
								{...field}
								name="planId"
								class="w-full"
								value={data.pair.planId ?? ''}
								><option value="">choose</option>{#each data.plans as plan (plan.id)}<option
										value={plan.id}>{plan.number}. {plan.task}</option
									>{/each}</select
							>{/snippet}
					</Field>
					<Field id="minutes" label="Minutes" refusal={at('minutes')}>
						{#snippet children(field)}<input
								{...field}
								name="minutes"
								inputmode="numeric"
								class="w-32 font-mono"
								autocomplete="off"
							/>{/snippet}
					</Field>
					<DayField
						name="wornOn"
						label="On"
						value={data.asOf}
						min={data.pair.openedOn}
						max={data.asOf}
						refusal={at('wornOn')}
					/>
					<button class="button primary">Enter</button>
				</form>{:else}<h2 id="enter" class="text-[1.15rem]! text-ink!">It stays sealed</h2>{/if}
			<form
				method="post"
				action="?/discard"
				class="mt-6 grid gap-3 border-t border-rule pt-4"
				use:enhance
			>
				<Field
					id="reason"
					label="Take it out of use because"
					refusal={at('reason')}
					hint="A smell before its time puts the plan in question."
				>
					{#snippet children(field)}<select {...field} name="reason" class="w-full"
							><option value="">choose</option
							>{#each Object.entries(EARLY_REASONS) as [key, reason] (key)}<option value={key}
									>{reason.words}</option
								>{/each}</select
						>{/snippet}
				</Field>
				<button class="button">Discard the pair</button>
			</form>
		</section>
	{/if}
</div>
