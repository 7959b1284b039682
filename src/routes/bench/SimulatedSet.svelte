<script lang="ts">
	/** How the set on the simulated BA bench is, and how it misbehaves. */
	import { enhance } from '$lib/ui/form/enhance';

	interface Props {
		faults: readonly string[];
		refusal: { message: string; path: string | undefined } | null;
	}
	let { faults, refusal }: Props = $props();
	const FIGURES = [
		['fillBar', 'Filled to, bar', '296'],
		['leakBarPerMin', 'Leak, bar/min', '0.8'],
		['whistleBar', 'Whistle at, bar', '55'],
		['bleedBarPerS', 'Let down, bar/s', '8']
	] as const;
	let told = $state(false);
	const mine = $derived(FIGURES.some(([name]) => name === refusal?.path));
</script>

<details class="rounded border-[1.5px] border-rule p-4">
	<summary class="min-h-11 cursor-pointer content-center font-semibold"
		>What the simulated set does</summary
	>
	<form
		method="post"
		action="?/simulateSet"
		class="mt-1 grid grid-cols-2 gap-3"
		use:enhance={() =>
			async ({ result, update }) => {
				await update({ reset: false });
				told = result.type === 'success';
			}}
	>
		{#each FIGURES as [name, label, usual] (name)}
			<label
				><span class="label">{label}</span><input
					{name}
					value={usual}
					inputmode="decimal"
					class="w-full font-mono"
				/></label
			>
		{/each}
		<label class="col-span-2"
			><span class="label">Fault of the set</span><select name="fault" class="w-full"
				>{#each faults as word (word)}<option>{word}</option>{/each}</select
			></label
		>
		<button class="button col-span-2">Tell the bench</button>
		{#if mine}<p class="col-span-2 font-semibold text-held" role="alert">{refusal?.message}</p>
		{:else if told}<p class="text-soft col-span-2" role="status">
				Told. It is so from the next reading on.
			</p>{/if}
	</form>
</details>
