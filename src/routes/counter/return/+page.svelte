<script lang="ts">
	import { beforeNavigate, invalidateAll } from '$app/navigation';
	import { onMount } from 'svelte';
	import { ANSWERS } from '$core/custody/questions';
	import { routeOf } from '$core/data/care-routes';
	import { WHERE_WORDS } from '$core/custody/custody';
	import { NOTICED, NOTICED_WORDS } from '$core/custody/noticed';
	import { damagesOf } from '$lib/ui/counter/damage';
	import { ReturnDesk } from '$lib/ui/counter/returns.svelte';
	import ScanField from '$lib/ui/counter/ScanField.svelte';
	import { bringCounter, counterWorld } from '$lib/ui/counter/world';
	import Notice from '$lib/ui/form/Notice.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { siteTime } from '$lib/ui/time/moments';

	let { data } = $props();
	const desk = new ReturnDesk(counterWorld, () => invalidateAll().catch(() => {}));
	let field: ReturnType<typeof ScanField> | undefined = $state();
	onMount(bringCounter);
	// What lies on the counter is put down before the page is left.
	beforeNavigate(() => void desk.putDown());
	const pending = $derived(desk.pending);
	const scan = (word: string) => void desk.scan(word);
	const figure = (text: string) => (text.trim() === '' ? null : Number(text.replace(',', '.')));
	const latest = $derived(desk.back[0]);
</script>

<svelte:head><title>Return · Grevan</title></svelte:head>
<div class="mt-3 flex flex-wrap items-baseline gap-x-4">
	<h1>Return</h1>
	<p class="text-soft">
		tag after tag; each is put down by the scan of the next, the last by Enter
	</p>
	<a class="linkish ml-auto inline-flex min-h-9 items-center" href="/counter/cards">Card of codes</a
	>
</div>
<div class="mt-3 grid gap-x-8 gap-y-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
	<section aria-label="What comes back">
		<ScanField
			bind:this={field}
			label="Scan what comes back"
			placeholder="tag; then 25m, 90b or 1 to 6"
			waiting={desk.waiting}
			onscan={scan}
		/>
		{#each desk.refused as one (one.tag)}
			<div class="mt-3">
				<Notice kind="refusal">
					<div class="flex flex-wrap items-center gap-3">
						<p class="min-w-0 flex-1"><span class="tag">{one.tag}</span>: {one.why}</p>
						<button class="linkish min-h-11" onclick={() => desk.seen(one.tag)}>Seen</button>
					</div>
				</Notice>
			</div>
		{/each}
		{#each desk.asked as one (one.pending.id)}
			<div class="mt-3 border-l-4 border-due bg-duetint px-4 py-3">
				<p>
					<span class="tag">{one.pending.tag}</span>: {one.questions
						.map(({ text }) => text)
						.join(' ')} How is it?
				</p>
				<p class="mt-2 flex flex-wrap gap-2">
					{#each one.questions.flatMap(({ question }) => ANSWERS[question]) as words (words)}<button
							class="button"
							onclick={() => {
								void desk.answer(one.pending.id, words);
								field?.focus();
							}}>{words}</button
						>{/each}
					<button class="linkish min-h-11" onclick={() => desk.seen(one.pending.tag)}
						>leave it out</button
					>
				</p>
			</div>
		{/each}
		{#if pending}
			<div class="mt-4 rounded border-2 border-ink bg-sheet p-4">
				<div class="flex flex-wrap items-baseline gap-3">
					<p class="tag text-[1.35rem]">{pending.tag}</p>
					<p class="text-soft">
						{pending.about
							? `${pending.about.model}, size ${pending.about.size}${pending.about.number ? `, out with ${pending.about.number}` : ''}`
							: 'on the counter'}; the next scan or Enter puts it down
					</p>
				</div>
				<div class="mt-3 flex flex-wrap items-end gap-3">
					<div>
						<label class="label" for="minutes">Worn, min</label>
						<input
							id="minutes"
							inputmode="numeric"
							class="w-24 font-mono"
							placeholder="as planned"
							disabled={pending.unused}
							value={pending.minutes ?? ''}
							onchange={(event) => void desk.say({ minutes: figure(event.currentTarget.value) })}
						/>
					</div>
					<div>
						<label class="label" for="bar">Left, bar</label>
						<input
							id="bar"
							inputmode="numeric"
							class="w-24 font-mono"
							placeholder="bar"
							disabled={pending.unused}
							value={pending.bar ?? ''}
							onchange={(event) => void desk.say({ bar: figure(event.currentTarget.value) })}
						/>
					</div>
					<button
						class={['button', pending.unused && 'primary']}
						aria-pressed={pending.unused}
						onclick={() => {
							void desk.say({ unused: !pending.unused, noticed: [] });
							field?.focus();
						}}>Not used</button
					>
				</div>
				<h2 class="mt-3">Noticed in use</h2>
				<p class="mt-1 grid grid-cols-2 gap-2 sm:grid-cols-3">
					{#each NOTICED as one, i (one)}<button
							class={['button justify-start!', pending.noticed.includes(one) && 'primary']}
							aria-pressed={pending.noticed.includes(one)}
							onclick={() => {
								void desk.notice(one);
								field?.focus();
							}}><kbd>{i + 1}</kbd> {NOTICED_WORDS[one]}</button
						>{/each}
				</p>
				{#if pending.noticed.includes('damage') && pending.about}
					<label class="label mt-3" for="damage">What is broken, if it is known</label>
					<select
						id="damage"
						class="w-full max-w-[26rem]"
						onchange={(event) => {
							const [station = '', code = ''] = event.currentTarget.value.split(' ');
							void desk.say({ damage: station ? { station, code } : null });
							field?.focus();
						}}
					>
						<option value="">looked at later</option>
						{#each damagesOf(pending.about.family) as look (look.station)}
							<optgroup label={look.name}>
								{#each look.codes as { code, name } (code)}<option value="{look.station} {code}"
										>{name}</option
									>{/each}
							</optgroup>
						{/each}
					</select>
				{/if}
				{#if pending.noticed.length}
					<label class="label mt-3" for="note">In the wearer’s words</label>
					<input
						id="note"
						class="w-full max-w-[26rem]"
						maxlength="300"
						value={pending.note}
						onchange={(event) => void desk.say({ note: event.currentTarget.value })}
					/>
				{/if}
				<p class="mt-3">
					<button class="button primary" onclick={() => scan('')}
						>Put it down <kbd>Enter</kbd></button
					>
				</p>
			</div>
		{/if}
		{#if latest}
			<h2 class="mt-6">Put down, last first</h2>
			<ul>
				{#each desk.back as one (one.id)}
					<li class="rowline py-2">
						{#if one.said}
							{@const [first, ...rest] = one.said.went}
							<div class="flex flex-wrap items-baseline gap-x-3">
								<StateMark state={first?.where === 'shelf' ? 'ready' : 'in wash'} />
								<a class="tag inline-flex min-h-9 items-center" href="/items/{one.tag}">{one.tag}</a
								>
								<span
									>{[
										one.said.number && `from ${one.said.number}`,
										one.said.minutes !== null && `${one.said.minutes} min`,
										one.said.task
									]
										.filter(Boolean)
										.join(', ')}</span
								>
								<b class="ml-auto">{first && WHERE_WORDS[first.where]}</b>
							</div>
							<p class="pl-8">
								{first?.does}
								{#if first && routeOf(first.family).cleaned === 'wiped' && first.where === 'returned'}<a
										class="linkish inline-flex min-h-9 items-center"
										href="/items/{first.tag}">Its list for after use</a
									>{/if}
							</p>
							{#each rest as part (part.tag)}<p class="pl-8">
									<span class="tag">{part.tag}</span> comes off it, {WHERE_WORDS[part.where]}. {part.does}
								</p>{/each}
							{#if one.said.contaminatedWith.length}<p
									class="pl-8 {one.said.bareHands ? '' : 'font-semibold text-held'}"
								>
									On it: {one.said.contaminatedWith.join(', ')}.{one.said.bareHands
										? ''
										: ' Gloves: it goes through the skin.'}
								</p>{/if}
							{#each one.said.leads as words (words)}<p class="pl-8 font-semibold text-held">
									{words}
								</p>{/each}
						{:else}
							<div class="flex flex-wrap items-baseline gap-x-3">
								<StateMark state="open" /><span class="tag">{one.tag}</span>
								<span class="text-soft ml-auto">waits on this device for the connection</span>
							</div>
						{/if}
					</li>
				{/each}
			</ul>
		{:else if !pending}<p class="mt-4 max-w-[34rem]">
				Scan the first tag. Minutes are taken as planned unless you type them (<kbd>25m</kbd>),
				pressure left as <kbd>90b</kbd>; what was noticed by its number or from the card.
			</p>{/if}
	</section>
	<aside>
		<h2>Came back before</h2>
		{#if data.last.length === 0}<p class="text-soft mt-1">Nothing yet.</p>{/if}
		<ul>
			{#each data.last as row (row.id)}
				<li class="rowline flex flex-wrap gap-x-3 py-2">
					<a class="tag inline-flex min-h-9 items-center" href="/items/{row.tag}">{row.tag}</a>
					<span>{row.number ?? ''}</span>
					<span class="text-soft ml-auto">{siteTime(row.at)}</span>
				</li>
			{/each}
		</ul>
		<p class="mt-4"><a class="button" href="/wash">To the wash line</a></p>
	</aside>
</div>
