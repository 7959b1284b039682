<script lang="ts">
	import { recordOf } from '$core/data/family-records';
	/** What the facts permit: the answer, its filter, how long it lasts, what would change it. */
	import { readableNumber } from '$core/units/number';
	import type { HazardDecision } from '$core/hazards/decision';
	import type { HazardFacts } from '$core/hazards/facts';
	import { STANDING_CAUTION } from '$core/hazards/ladder';
	import type { Change } from '$core/hazards/changes';
	import { shownKind } from '$core/hazards/shown-kind';
	import { protectionKind } from '$core/data/protection-factors';
	import { rankForSite, type Side } from '$core/hazards/compare';
	import type { PlanLife } from '$core/filters/plan-life';
	import { clock } from '$core/filters/schedule';
	import { written } from '$core/hazards/facts';
	import Because from '$lib/ui/because/Because.svelte';
	import FilterBand from '$lib/ui/form/FilterBand.svelte';
	import { OUTCOME_SENTENCES } from '$lib/ui/outcome';
	import Reading from '$lib/ui/reading/Reading.svelte';

	interface Props {
		decision: HazardDecision;
		facts: HazardFacts;
		life: PlanLife | null;
		changes: Change[];
		/** Both rule sets' answers. */
		sides: Side[];
		differ: boolean;
		/** Items ready on the shelf, by kind. */
		ready: Record<string, number>;
	}
	let { decision, facts, life, changes, sides, differ, ready }: Props = $props();
	const ranked = $derived(rankForSite(decision.permitted, ready));
	const half = $derived(decision.permitted.find((k) => recordOf(k.kind).carries === 'half mask'));
	const shown = $derived(shownKind(decision));
	/** Nothing has to be worn: said large, instead of a kind. */
	const nothing = $derived(decision.outcome === 'filter' && !shown);
	const scheme = $derived(facts.ruleSet === 'us' ? 'us' : 'en');
	const code = $derived(shown?.filters?.[scheme]);
	const other = $derived(shown?.filters?.[scheme === 'us' ? 'en' : 'us']);
	const model = $derived(life?.parts.find((p) => p.estimate)?.estimate);
	const lifeReasons = $derived(life?.parts.flatMap((p) => p.reasons) ?? []);
	const halfRefused = $derived(
		half ? null : decision.rejected.find((k) => recordOf(k.kind).carries === 'half mask')
	);
	/** What fixes the change time where the model does not. */
	const limiting = $derived(
		life?.parts
			.filter((p) => p.minutes !== null && !p.estimate)
			.sort((a, b) => (a.minutes ?? 0) - (b.minutes ?? 0))[0]
			?.reasons.at(-1)?.text
	);
	const kind = $derived(protectionKind(shown?.kind));
	const filtersWorn = $derived(
		kind?.blowerLPerMin
			? `its blower, ${kind.blowerLPerMin} L/min through ${kind.filters ?? 1} filters`
			: (kind?.filters ?? 1) > 1
				? 'a pair'
				: 'one filter'
	);
	/** What goes with the answer, that of the kind first. */
	const conditions = $derived([...new Set([...(shown?.conditions ?? []), ...decision.conditions])]);
	const short = (value: number) => readableNumber(value, 3);
</script>

<div class="rounded border-2 border-ink bg-sheet p-4" aria-live="polite">
	<h2>Under these facts</h2>
	<p class="text-[1.4rem] leading-tight font-bold" data-testid="outcome">
		{decision.outcome === 'filter' && shown
			? shown.label
			: nothing
				? 'Nothing has to be worn, as entered'
				: OUTCOME_SENTENCES[decision.outcome]}
	</p>
	{#if code}
		<div class="mt-3"><FilterBand {code} {scheme} /></div>
		<p class="text-soft mt-1 text-[0.9rem]">
			{scheme === 'us' ? '42 CFR 84' : 'EN 14387, EN 143'}{other
				? ` · other scheme: ${other}`
				: ' · no code in the other scheme'}
		</p>
	{:else if shown && decision.outcome !== 'filter'}<p class="mt-1">
			{shown.label}, the lightest that holds.
		</p>{/if}
	<dl class="mt-3 grid grid-cols-[1fr_auto] gap-y-1">
		{#if decision.requiredFactor}<dt>Factor needed</dt>
			<dd class="text-right font-mono font-semibold">{decision.requiredFactor}</dd>{/if}
		{#if shown}<dt>Factor of this kind</dt>
			<dd class="text-right font-mono font-semibold">{shown.factor}</dd>
			<dt>Holds up to</dt>
			<dd class="text-right font-mono font-semibold">{short(shown.maxUseMultiple)} × limit</dd>{/if}
		{#if decision.suit !== 'none'}<dt>On the skin</dt>
			<dd class="text-right font-semibold">{decision.suit}</dd>{/if}
	</dl>
	{#if code && life && decision.outcome === 'filter'}
		<div class="mt-3 border-t border-rule pt-3">
			{#if life.changeAfterMin === null}<p>
					Change the filters by breathing resistance, damage and date.
				</p>
			{:else}
				<Reading
					label="Change the filters after"
					value={clock(life.changeAfterMin)}
					large={false}
				/>
				{#if model?.outcome === 'estimate'}<p class="text-soft mt-1 text-[0.93rem]">
						The model reaches a tenth at {clock(Math.round(model.breakthroughMin))}; {clock(
							Math.round(model.lowerBoundMin)
						)} is its lower 95 % bound{model.humidityFactor < 1
							? `, humidity leaves ${Math.round(model.humidityFactor * 100)} %`
							: ''}. For {filtersWorn} with a usual bed; the filter you choose may differ.
					</p>{/if}
				{#if limiting}<p class="text-soft mt-1 text-[0.93rem]">{limiting}</p>{/if}
				{#if life.singleUse}<p class="font-semibold text-due">
						Once only: discard at the end of the shift.
					</p>{/if}
			{/if}
			<Because title="Change time" reasons={lifeReasons} label="How long, and why" />
		</div>
	{/if}
	<Because
		title={OUTCOME_SENTENCES[decision.outcome]}
		reasons={decision.reasons}
		changesIf={changes.map((change) => change.text)}
		{conditions}
		label="Because"
	/>
	{#if changes.length}
		<h3 class="mt-3 text-[0.88rem] font-bold text-soft">What would change it</h3>
		<ul data-testid="changes">
			{#each changes as change (change.index + change.direction)}<li
					class="mt-1 border-l-4 border-accent pl-3"
				>
					{change.direction}
					<b class="font-mono">{readableNumber(change.at, 4)}</b>
					{written(change.unit)}{decision.contaminants.length > 1
						? ` of ${change.contaminant}`
						: ''}: {change.becomes}
				</li>{/each}
		</ul>
	{/if}
	{#if halfRefused && decision.outcome === 'filter'}<p class="mt-2 border-l-4 border-held pl-3">
			<b>Not</b> a half mask: {halfRefused.reason.toLowerCase()}
		</p>{/if}
	{#if conditions.length}
		<h3 class="mt-3 text-[0.88rem] font-bold text-soft">With it</h3>
		<ul data-testid="conditions">
			{#each conditions as line (line)}<li class="mt-1 border-l-4 border-due pl-3">
					{line}
				</li>{/each}
		</ul>
	{/if}
	<div class="mt-3 border-t border-rule pt-2" data-testid="both">
		<h3 class="text-[0.88rem] font-bold text-soft">
			{differ ? 'The two rule sets differ' : 'Both rule sets agree'}
		</h3>
		<dl class="mt-1 grid grid-cols-[2.2rem_1fr] gap-x-2 text-[0.93rem]">
			{#each sides as side (side.ruleSet)}<dt
					class={side.ruleSet === facts.ruleSet ? 'font-bold' : 'text-soft'}
				>
					{side.ruleSet.toUpperCase()}
				</dt>
				<dd class={differ || side.ruleSet === facts.ruleSet ? '' : 'text-soft'}>
					{side.answer}{side.ratio === null
						? ''
						: `; ${short(side.ratio)} × the limit${side.required ? `, factor ${side.required}` : ''}`}
				</dd>{/each}
		</dl>
	</div>
	<details class="mt-3">
		<summary class="min-h-11 cursor-pointer content-center font-semibold"
			>All {decision.permitted.length} kinds permitted</summary
		>
		<table class="w-full text-left text-[0.93rem]">
			<thead class="text-soft"
				><tr
					><th class="font-semibold">Kind</th><th class="text-right font-semibold">Factor</th><th
						class="text-right font-semibold">Filter</th
					><th class="text-right font-semibold">Ready</th></tr
				></thead
			>
			<tbody
				>{#each ranked as kind (kind.kind)}<tr class="border-t border-rule"
						><td class="py-1 pr-2">{kind.label}</td><td class="text-right font-mono"
							>{kind.factor}</td
						><td class="text-right font-mono">{kind.filters?.[scheme] ?? ''}</td><td
							class="text-right font-mono">{kind.ready || ''}</td
						></tr
					>{/each}</tbody
			>
		</table>
	</details>
	{#if decision.rejected.length}<details>
			<summary class="min-h-11 cursor-pointer content-center font-semibold"
				>{decision.rejected.length} kinds refused, and why</summary
			>
			<dl class="text-[0.93rem]">
				{#each decision.rejected as kind (kind.kind)}<dt class="mt-1 font-semibold">
						{kind.label}
					</dt>
					<dd class="text-soft">{kind.reason}</dd>{/each}
			</dl>
		</details>{/if}
	<p class="text-soft mt-3 text-[0.9rem]">{STANDING_CAUTION.text}</p>
</div>
