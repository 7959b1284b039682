<script lang="ts">
	/** A team that goes in: what for, and each wearer with set and pressure. */
	import { untrack } from 'svelte';
	import { cylinderDuration } from '$core/air/content';
	import { EXPECTED_L_PER_MIN, MARGIN_MIN } from '$core/air/entry';
	import { readPressure } from '$core/units/pressure';
	import { InputError } from '$core/verdict';
	import { freshId } from '$lib/fresh-id';
	import { typedOrNull } from '$lib/ui/form/number';
	import PressureField from '$lib/ui/form/PressureField.svelte';

	interface Known {
		wearer: string;
		uses: number;
		meanLPerMin: number;
		pessimisticLPerMin: number;
	}
	interface FromCounter {
		task: string;
		placeId: string | null;
		wearers: { wearer: string; set: string; litres: number | null; startBar: number | null }[];
	}
	interface Props {
		/** A team that left the counter: names, sets and pressures come with it. */
		from: FromCounter | null;
		places: { id: string; name: string }[];
		known: Known[];
		telemetry: boolean;
		onenter: (fields: Record<string, string>) => Promise<{ message: string; path?: string } | null>;
	}
	let { from, places, known, telemetry, onenter }: Props = $props();
	const fresh = () => ({
		id: freshId(),
		wearer: '',
		set: '',
		litres: '',
		start: '',
		channel: '',
		seal: false
	});
	let id = $state(freshId());
	const given = untrack(() => from);
	let [task, placeId, margin] = $state([
		given?.task ?? '',
		given?.placeId ?? '',
		String(MARGIN_MIN)
	]);
	let wearers = $state(
		given?.wearers.map((one) => ({
			...fresh(),
			wearer: one.wearer,
			set: one.set,
			litres: one.litres === null ? '' : String(one.litres),
			start: one.startBar === null ? '' : String(one.startBar)
		})) ?? [fresh(), fresh()]
	);
	let refusal = $state<{ message: string; path?: string } | null>(null);
	let busy = $state(false);
	const listId = $props.id();

	const figures = (name: string) => known.find((k) => k.wearer === name.trim());
	/** Minutes to the warning of one who is about to go in. */
	function minutes(one: (typeof wearers)[number]): string {
		try {
			const litres = typedOrNull(one.litres);
			if (litres === null || one.start.trim() === '') return '';
			const rate = figures(one.wearer)?.pessimisticLPerMin ?? EXPECTED_L_PER_MIN;
			const { minutesToWarning } = cylinderDuration({
				waterVolumeL: litres,
				startBar: readPressure(one.start).bar,
				consumptionLPerMin: rate
			});
			return `${Math.floor(minutesToWarning)} min to the warning`;
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			return '';
		}
	}
	const at = (i: number) => (refusal?.path?.startsWith(`wearers.${i}.`) ? refusal.message : null);

	async function enter(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		refusal = await onenter({
			id,
			task,
			placeId,
			marginMin: margin,
			wearers: JSON.stringify(wearers.filter((one) => one.wearer.trim() || one.start.trim()))
		});
		busy = false;
		if (refusal) return;
		[id, task, wearers] = [freshId(), '', [fresh(), fresh()]];
	}
</script>

<form onsubmit={enter} class="grid gap-4 rounded border-2 border-ink bg-sheet p-4">
	<div class="flex flex-wrap gap-4">
		<label class="min-w-60 flex-1"
			><span class="label">They go in for</span><input
				bind:value={task}
				required
				class="w-full"
			/></label
		>
		<label
			><span class="label">Place</span><select bind:value={placeId}
				><option value="">none of the list</option>{#each places as place (place.id)}<option
						value={place.id}>{place.name}</option
					>{/each}</select
			></label
		>
		<label
			><span class="label">Out before the warning, min</span><input
				bind:value={margin}
				inputmode="numeric"
				class="w-24 font-mono"
			/></label
		>
	</div>
	<datalist id={listId}
		>{#each known as one (one.wearer)}<option value={one.wearer}></option>{/each}</datalist
	>
	<ul class="grid gap-3">
		{#each wearers as one, i (one.id)}
			{@const own = figures(one.wearer)}
			<li class="flex flex-wrap items-start gap-3" aria-label="Wearer {i + 1}">
				<label
					><span class="label">Wearer</span><input
						bind:value={one.wearer}
						list={listId}
						autocomplete="off"
						class="w-44"
					/></label
				>
				<label
					><span class="label">Set</span><input
						bind:value={one.set}
						autocomplete="off"
						placeholder="scan"
						class="tag w-32 uppercase placeholder:normal-case"
					/></label
				>
				<label
					><span class="label">Litres</span><input
						bind:value={one.litres}
						inputmode="decimal"
						placeholder="set’s"
						class="w-24 font-mono"
					/></label
				>
				<PressureField label="Gauge, bar" bind:value={one.start} width="w-24" />
				{#if telemetry}<label
						><span class="label">Sends as</span><input
							bind:value={one.channel}
							autocomplete="off"
							placeholder="by hand"
							class="tag w-24 uppercase placeholder:normal-case"
						/></label
					>{/if}
				<label class="flex min-h-11 items-center gap-2 pt-6"
					><input type="checkbox" bind:checked={one.seal} />Seal checked</label
				>
				<p class="text-soft max-w-64 pt-7 text-[0.9rem]">
					{#if own}{Math.round(own.meanLPerMin)} L/min in {own.uses}
						{own.uses === 1 ? 'use' : 'uses'}, planned with {Math.round(
							own.pessimisticLPerMin
						)}.{:else if one.wearer.trim()}No use on record: planned with {EXPECTED_L_PER_MIN}.{/if}
					{minutes(one)}
				</p>
				{#if at(i)}<p class="w-full font-semibold text-held" role="alert">{at(i)}</p>{/if}
			</li>
		{/each}
	</ul>
	{#if refusal && !/^wearers\.\d/.test(refusal.path ?? '')}<p
			class="font-semibold text-held"
			role="alert"
		>
			{refusal.message}
		</p>{/if}
	<div class="flex flex-wrap gap-3">
		<button class="button primary" disabled={busy}>They go in now</button>
		<button type="button" class="button" onclick={() => (wearers = [...wearers, fresh()])}
			>Another wearer</button
		>
	</div>
</form>
