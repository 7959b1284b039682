<script lang="ts">
	import type { Brought, BroughtTo } from '$core/custody/answers';
	import { ANSWERS } from '$core/custody/questions';
	import { WHERE_NAMES, WHERE_WORDS } from '$core/custody/custody';
	import ScanField from '$lib/ui/counter/ScanField.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { sendAction } from '$lib/ui/form/send';
	import StateMark from '$lib/ui/mark/StateMark.svelte';

	let { data } = $props();
	const TO: BroughtTo[] = ['shelf', 'bench', 'filling', 'service', 'test house', 'quarantine'];
	let to = $state<BroughtTo>('shelf');
	let placeId = $state('');
	let testHouseId = $state('');
	let waiting = $state(0);
	let refused = $state<{ tag: string; why: string }[]>([]);
	let asked = $state<{ tag: string; to: BroughtTo; placeId: string; texts: string[] }[]>([]);
	let put = $state<Extract<Brought, { done: true }>[]>([]);
	let field: ReturnType<typeof ScanField> | undefined = $state();
	let last = Promise.resolve();
	let words = $state<Record<string, string>>({});

	function scan(word: string) {
		const tag = word.trim().toUpperCase();
		if (tag) queue({ tag, to, placeId: to === 'shelf' ? placeId : '' });
	}
	function queue(one: { tag: string; to: BroughtTo; placeId: string }, because = '') {
		waiting++;
		const house = one.to === 'test house' ? testHouseId : '';
		last = last.then(async () => {
			const sent = await sendAction<{ result: Brought }>('?/bring', {
				...one,
				testHouseId: house,
				because
			});
			waiting--;
			asked = asked.filter(({ tag }) => tag !== one.tag);
			refused = refused.filter(({ tag }) => tag !== one.tag);
			if (sent.refused) refused = [{ tag: one.tag, why: sent.refused.message }, ...refused];
			else if (sent.data) {
				const { result } = sent.data;
				if (result.done) put = [result, ...put].slice(0, 40);
				else asked = [{ ...one, texts: result.asked }, ...asked];
			}
		});
	}
</script>

<svelte:head><title>Put away · Grevan</title></svelte:head>
<div class="mt-3 flex flex-wrap items-baseline gap-x-4">
	<h1>Put away</h1>
	<p class="text-soft">choose once where it goes, then scan one after the other</p>
</div>
<div class="mt-3 grid gap-x-8 gap-y-4 lg:grid-cols-[18rem_minmax(0,1fr)]">
	<section aria-label="Where to">
		<fieldset>
			<legend class="label">Where it goes</legend>
			{#each TO as one (one)}<label class="rowline flex min-h-11 items-center gap-3"
					><input type="radio" name="to" value={one} bind:group={to} />
					{one === 'shelf' ? 'On a shelf' : WHERE_NAMES[one]}</label
				>{/each}
		</fieldset>
		{#if to === 'shelf'}
			<label class="label mt-3" for="shelf">Which shelf</label>
			<select id="shelf" class="w-full" bind:value={placeId}>
				<option value="">its own</option>
				{#each data.places as place (place.id)}<option value={place.id}
						>{place.name}{place.storage.length ? `: ${place.storage.join(', ')}` : ''}</option
					>{/each}
			</select>
		{/if}
		{#if to === 'test house' && data.houses.length}
			<label class="label mt-3" for="house">Which test house</label>
			<select id="house" class="w-full" bind:value={testHouseId}>
				<option value="">not said</option>
				{#each data.houses as house (house.id)}<option value={house.id}>{house.name}</option>{/each}
			</select>
		{/if}
	</section>
	<section aria-label="Scan">
		<ScanField
			bind:this={field}
			label={to === 'shelf' ? 'Scan what is put away' : `Scan what goes to: ${WHERE_NAMES[to]}`}
			placeholder="tag"
			{waiting}
			onscan={scan}
		/>
		{#each refused as one (one.tag)}
			<div class="mt-3">
				<Notice kind="refusal">
					<div class="flex flex-wrap items-center gap-3">
						<p class="min-w-0 flex-1"><span class="tag">{one.tag}</span>: {one.why}</p>
						<button
							class="linkish min-h-11"
							onclick={() => (refused = refused.filter((other) => other !== one))}>Seen</button
						>
					</div>
				</Notice>
			</div>
		{/each}
		{#each asked as one (one.tag)}
			<div class="mt-3 border-l-4 border-due bg-duetint px-4 py-3">
				<p><span class="tag">{one.tag}</span>: {one.texts.join(' ')}</p>
				<form
					class="mt-2 flex flex-wrap items-end gap-2"
					onsubmit={(event) => {
						event.preventDefault();
						queue(one, words[one.tag] ?? '');
						field?.focus();
					}}
				>
					{#if one.to === 'shelf'}{#each ANSWERS['not on its shelf'] as answer (answer)}<button
								type="button"
								class="button"
								onclick={() => {
									queue(one, answer);
									field?.focus();
								}}>{answer}</button
							>{/each}{/if}
					<div class="min-w-0 flex-1">
						<label class="label" for="why-{one.tag}">How it is</label>
						<input
							id="why-{one.tag}"
							class="w-full"
							maxlength="300"
							required
							bind:value={words[one.tag]}
						/>
					</div>
					<button class="button">So it is</button>
					<button
						type="button"
						class="linkish min-h-11"
						onclick={() => (asked = asked.filter((other) => other !== one))}>leave it</button
					>
				</form>
			</div>
		{/each}
		<h2 class="mt-5">Put away, last first</h2>
		{#if put.length === 0}<p class="mt-1">Nothing yet: scan the first tag.</p>{/if}
		<ul>
			{#each put as one, i (i)}
				<li class="rowline flex flex-wrap items-baseline gap-x-3 py-2">
					<StateMark state={one.to === 'shelf' ? 'ready' : 'in service'} />
					<a class="tag inline-flex min-h-9 items-center" href="/items/{one.tag}">{one.tag}</a>
					<b>{one.place ?? WHERE_WORDS[one.to]}</b>
					<span class="text-soft">{one.to === 'shelf' ? one.carrying : ''}</span>
				</li>
			{/each}
		</ul>
	</section>
</div>
