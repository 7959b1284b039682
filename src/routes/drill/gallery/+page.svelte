<script lang="ts">
	/** Every drawing: good, each of its faults, and what only looks like one; as far gone as one chooses. */
	import { rejectCode } from '$core/data/reject-codes';
	import { SUBJECT_KEYS, SUBJECTS } from '$core/drawings/subjects';
	import { wearing } from '$core/drawings/card';
	import RightWrong from '$lib/ui/drawings/RightWrong.svelte';
	import Drawing from '$lib/ui/drawings/Drawing.svelte';

	let amount = $state(70);
	let at = $state(30);
	let find = $state('');
	const vary = $derived({ amount: amount / 100, at: at / 100 });
	const shown = $derived(
		SUBJECT_KEYS.filter((key) => {
			const { name, faults } = SUBJECTS[key];
			const words = `${name} ${Object.keys(faults)
				.map((code) => `${code} ${rejectCode(code).name}`)
				.join(' ')}`;
			return words.toLowerCase().includes(find.trim().toLowerCase());
		})
	);
	const done = $derived(
		wearing().filter(({ says, wrong }) =>
			`${says} ${wrong?.says}`.toLowerCase().includes(find.trim().toLowerCase())
		)
	);
</script>

<svelte:head><title>Good beside bad · Grevan</title></svelte:head>
<h1 class="mt-3">Good beside bad</h1>
<div class="no-print mt-2 flex flex-wrap items-end gap-x-8 gap-y-3">
	<label
		><span class="label">Find</span><input
			bind:value={find}
			maxlength="60"
			autocomplete="off"
			class="w-56"
		/></label
	>
	<label class="grid"
		><span class="label">How far gone</span><input
			type="range"
			min="5"
			max="100"
			bind:value={amount}
			class="min-h-11 w-48 accent-(--accent)"
		/></label
	>
	<label class="grid"
		><span class="label">Where</span><input
			type="range"
			min="0"
			max="100"
			bind:value={at}
			class="min-h-11 w-48 accent-(--accent)"
		/></label
	>
</div>
{#if done.length}
	<section aria-labelledby="of-worn" class="mt-6">
		<h2 id="of-worn">On the wearer</h2>
		<div class="mt-1 grid gap-x-8 gap-y-4 sm:grid-cols-2 lg:grid-cols-3">
			{#each done as one (one.says)}<RightWrong {...one} />{/each}
		</div>
	</section>
{/if}
{#each shown as key (key)}
	{@const subject = SUBJECTS[key]}
	<section aria-labelledby="of-{key}" class="mt-6 break-inside-avoid">
		<h2 id="of-{key}">{subject.name}</h2>
		<div class="mt-1 grid grid-cols-[repeat(auto-fill,minmax(10rem,1fr))] gap-4">
			<figure>
				<Drawing subject={key} silent />
				<figcaption class="text-[0.93rem]"><b>good.</b> {subject.good}</figcaption>
			</figure>
			{#each Object.entries(subject.faults) as [code, says] (code)}
				<figure>
					<Drawing subject={key} what={code} {vary} silent />
					<figcaption class="text-[0.93rem]">
						<span class="tag">{code}</span>
						{rejectCode(code).name}. {says}
					</figcaption>
				</figure>
			{/each}
			{#if subject.near}<figure>
					<Drawing subject={key} what="near" {vary} silent />
					<figcaption class="text-[0.93rem]"><b>no fault.</b> {subject.near}</figcaption>
				</figure>{/if}
		</div>
	</section>
{:else}{#if !done.length}<p class="mt-4">
			No drawing of that. Try another word, or a code such as CURL.
		</p>{/if}{/each}
