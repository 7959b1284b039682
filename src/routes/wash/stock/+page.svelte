<script lang="ts">
	import { BATH_AGENTS } from '$core/care/wash-check';
	import { doseOf } from '$core/care/dilution';
	import { readable } from '$core/plan/calendar';
	import { freshId } from '$lib/fresh-id';
	import DayField from '$lib/ui/form/DayField.svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import Notice from '$lib/ui/form/Notice.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const at = (path: string) => refusal?.fields.find((one) => one.path === path)?.message;
	let agent = $state<(typeof BATH_AGENTS)[number]>('chlorine');
	let litres = $state('10');
	let ml = $state('10');
	let percent = $state('5');
	const gives = $derived.by(() => {
		const [p, l, m] = [percent, litres, ml].map((text) => Number(text.replace(',', '.')));
		return p && l && m && p > 0 && l > 0 && m > 0
			? doseOf({ stockPercent: p, volumeL: l }, m)
			: null;
	});
</script>

<svelte:head><title>Stock for the bath · Grevan</title></svelte:head>
<h1 class="mt-3">Stock for the bath</h1>
{#if refusal}<div class="mt-3"><Notice kind="refusal"><p>{refusal.message}</p></Notice></div>{/if}
<div class="mt-3 grid gap-x-8 gap-y-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
	<section>
		<h2>In use</h2>
		{#if data.stock.length === 0}<p class="mt-1">
				None yet. Open a container with the form: its name, what it is and how strong.
			</p>{/if}
		<ul>
			{#each data.stock as one (one.id)}
				<li class="rowline flex flex-wrap items-center gap-x-4 py-2">
					<div class="min-w-48 flex-1">
						<b>{one.name}</b>, {one.agent}
						<span class="text-soft block"
							>opened {readable(one.openedOn)}{one.expiresOn
								? `, to be used by ${readable(one.expiresOn)}`
								: ''}{one.halfLifeDays ? `, half of it gone in ${one.halfLifeDays} days` : ''}</span
						>
					</div>
					<span class="font-mono"
						>{one.percentNow === null
							? 'as its label'
							: `${one.percentNow.toFixed(2)} % today`}</span
					>
					<span class="font-mono">{Math.round(one.leftMl)} mL</span>
					{#if one.expired}<b class="text-held">past its date</b>{/if}
					{#if data.mayKeep}<form method="post" action="?/close" use:enhance>
							<input type="hidden" name="id" value={one.id} />
							<input type="hidden" name="version" value={one.version} />
							<button class="button" aria-label="{one.name} is empty or gone">Empty or gone</button>
						</form>{/if}
				</li>
			{/each}
		</ul>
		<h2 class="mt-6">What a recipe really gives</h2>
		<div class="mt-1 flex flex-wrap items-end gap-3">
			<div>
				<label class="label" for="r-ml">Stock, mL</label>
				<input id="r-ml" inputmode="decimal" class="w-24 font-mono" bind:value={ml} />
			</div>
			<div>
				<label class="label" for="r-p">of %</label>
				<input id="r-p" inputmode="decimal" class="w-24 font-mono" bind:value={percent} />
			</div>
			<div>
				<label class="label" for="r-l">in L</label>
				<input id="r-l" inputmode="decimal" class="w-24 font-mono" bind:value={litres} />
			</div>
			<p class="pb-2">
				{#if gives !== null}gives <b class="font-mono text-[1.3rem]">{gives.toFixed(0)}</b> ppm; 50 ppm
					for two minutes disinfects.{/if}
			</p>
		</div>
		<p class="mt-2 max-w-[40rem]">
			The recipe on many walls, 5 mL of 5.25 % in a gallon, gives 69 ppm in a US gallon of 3.785 L
			and 58 ppm in an imperial one of 4.546 L, though it is quoted as 50. Common practice; from
			memory.
		</p>
		<p class="mt-2 font-semibold">Never chlorine together with acids or ammonia: poisonous gas.</p>
	</section>
	{#if data.mayKeep}
		<form
			method="post"
			action="?/open"
			use:enhance
			class="grid gap-3 self-start rounded border-2 border-ink bg-sheet p-4"
		>
			<h2>Open a container</h2>
			<input type="hidden" name="id" value={freshId()} />
			<div>
				<label class="label" for="name">What stands on it</label>
				<input id="name" name="name" maxlength="60" required class="w-full" />
				{#if at('name')}<p class="text-held">{at('name')}</p>{/if}
			</div>
			<div>
				<label class="label" for="agent">Agent</label>
				<select id="agent" name="agent" class="w-full" bind:value={agent}>
					{#each BATH_AGENTS as one (one)}<option>{one}</option>{/each}
				</select>
			</div>
			<div class="grid grid-cols-2 gap-3">
				<div>
					<label class="label" for="percent">Strength, % w/v</label>
					<input id="percent" name="percent" inputmode="decimal" class="w-full font-mono" />
					{#if at('percent')}<p class="text-held">{at('percent')}</p>{/if}
				</div>
				<div>
					<label class="label" for="leftMl">In it, mL</label>
					<input id="leftMl" name="leftMl" inputmode="decimal" class="w-full font-mono" />
					{#if at('leftMl')}<p class="text-held">{at('leftMl')}</p>{/if}
				</div>
			</div>
			{#if agent === 'chlorine'}<div>
					<label class="label" for="strengthAs">The per cent are of</label>
					<select id="strengthAs" name="strengthAs" class="w-full">
						<option>available chlorine</option>
						<option>sodium hypochlorite</option>
					</select>
				</div>{/if}
			{#if agent === 'quaternary ammonium'}<div>
					<label class="label" for="labelMin">Minutes on its label</label>
					<input id="labelMin" name="labelMin" inputmode="numeric" class="w-24 font-mono" />
				</div>{:else}<input type="hidden" name="labelMin" value="" />{/if}
			<DayField name="openedOn" label="Opened on" value={data.asOf} />
			<DayField name="expiresOn" label="To be used by, if it says" value="" />
			<div>
				<label class="label" for="halfLife">Half of it gone in, days; empty: it keeps</label>
				<input id="halfLife" name="halfLifeDays" inputmode="decimal" class="w-28 font-mono" />
			</div>
			<button class="button primary">Open it</button>
		</form>
	{/if}
</div>
