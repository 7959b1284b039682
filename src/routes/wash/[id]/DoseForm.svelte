<script lang="ts">
	/** Stock into the bath: the millilitres for the dose are worked out, and what they give the other way. */
	import { doseOf, DOSE_PPM, stockFor } from '$core/care/dilution';
	import { contactAsked, neverMixed, type Cleaner } from '$core/care/batch';
	import type { BathAgent } from '$core/care/wash-check';
	import { enhance } from '$lib/ui/form/enhance';

	interface Stock {
		id: string;
		name: string;
		agent: BathAgent;
		percentNow: number | null;
		leftMl: number;
		labelMin: number | null;
		openedOn: string;
		expired: boolean;
	}
	interface Props {
		stock: readonly Stock[];
		/** Agents that everything in it takes. */
		agents: readonly BathAgent[];
		cleaner: Cleaner;
		refusal: { path?: string | undefined; message: string } | null;
	}
	let { stock, agents, cleaner, refusal }: Props = $props();
	const fits = $derived(
		stock.filter(
			({ agent, expired, leftMl }) =>
				agents.includes(agent) && !expired && leftMl > 0 && neverMixed(cleaner, agent) === null
		)
	);
	const others = $derived(stock.filter((one) => !fits.includes(one)));
	let chosen = $state('');
	let litres = $state('10');
	let typed = $state('');
	const container = $derived(fits.find(({ id }) => id === chosen) ?? fits[0]);
	const volumeL = $derived(Number(litres.replace(',', '.')));
	const wanted = $derived(
		container?.percentNow && volumeL > 0
			? stockFor({ stockPercent: container.percentNow, volumeL })
			: null
	);
	// Rounded up to what a measuring cup shows: never weaker than the dose.
	const ml = $derived(typed || (wanted === null ? '' : String(Math.ceil(wanted * 2) / 2)));
	const gives = $derived(
		container?.percentNow && volumeL > 0 && Number(ml) > 0
			? doseOf({ stockPercent: container.percentNow, volumeL }, Number(ml.replace(',', '.')))
			: null
	);
	const said = (path: string) => (refusal?.path === path ? refusal.message : null);
</script>

{#if !container}
	<p class="mt-3 font-semibold text-held">
		No stock that all of this takes is at hand. <a class="linkish" href="/wash/stock">Open some</a>.
	</p>
{:else}
	<form method="post" action="?/step" use:enhance class="mt-3 grid gap-3">
		<input type="hidden" name="to" value="disinfect" />
		<div>
			<label class="label" for="stock">From</label>
			<select
				id="stock"
				name="containerId"
				class="w-full max-w-[30rem]"
				value={container.id}
				onchange={(event) => {
					chosen = event.currentTarget.value;
					typed = '';
				}}
			>
				{#each fits as one (one.id)}<option value={one.id}
						>{one.name}, {one.agent}{one.percentNow === null
							? ''
							: `, ${one.percentNow.toFixed(1)} % today`}, {Math.round(one.leftMl)} mL left</option
					>{/each}
			</select>
			{#if said('containerId')}<p class="mt-1 text-held">{said('containerId')}</p>{/if}
		</div>
		<div class="flex flex-wrap gap-4">
			<div>
				<label class="label" for="litres">Bath, L</label>
				<input
					id="litres"
					name="volumeL"
					inputmode="decimal"
					class="w-24 font-mono"
					bind:value={litres}
				/>
			</div>
			<div>
				<label class="label" for="ml">Stock, mL</label>
				<input
					id="ml"
					name="stockMl"
					inputmode="decimal"
					class="w-28 font-mono text-[1.3rem]! font-bold"
					value={ml}
					oninput={(event) => (typed = event.currentTarget.value)}
				/>
			</div>
			<p class="self-end pb-2">
				{#if gives !== null}gives <b class="font-mono text-[1.3rem]">{gives.toFixed(0)}</b> ppm;
					{DOSE_PPM} wanted{:else}dose as its label says{/if}
			</p>
		</div>
		{#if said('volumeL') ?? said('stockMl')}<p class="text-held">
				{said('volumeL') ?? said('stockMl')}
			</p>{/if}
		{#if gives !== null && gives < DOSE_PPM}<p class="font-semibold text-held">
				Too weak: it does not disinfect in {contactAsked(container.agent, container.labelMin)} min.
			</p>{/if}
		<p>
			<button class="button primary"
				>It is in: {contactAsked(container.agent, container.labelMin)} min from now</button
			>
		</p>
	</form>
{/if}
{#if others.length}<p class="text-soft mt-3">
		Not for this batch: {others
			.map(
				({ name, agent, expired, leftMl }) =>
					`${name} (${neverMixed(cleaner, agent) ? 'never after this cleaner' : expired ? 'past its date' : leftMl <= 0 ? 'empty' : `${agent} is not allowed by a maker`})`
			)
			.join(', ')}.
	</p>{/if}
