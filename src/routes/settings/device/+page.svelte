<script lang="ts">
	import { onMount } from 'svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import {
		keepPedal,
		type PedalDoes,
		type Pedals,
		pedals,
		PEDALS,
		refusedPedal
	} from '$lib/ui/run/pedal';
	import { sound } from '$lib/ui/sound/sounds';
	import { soundsOn, voiceOn, wantSounds, wantVoice } from '$lib/ui/sound/wanted';
	import { keptHere, wipe, type Kept } from '$lib/ui/shell/kept';
	import { siteMoment } from '$lib/ui/time/moments';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const me = $derived(data.actor?.id ?? '');
	let kept = $state.raw<Kept | null>(null);
	let wiped = $state(false);
	const look = async () => (kept = await keptHere(me));
	let [sounds, voice] = $state([true, false]);
	let feet = $state.raw<Pedals>({});
	/** What the next pedal that is pressed will do. */
	let learning = $state<PedalDoes | null>(null);
	let footRefused = $state<string | null>(null);
	function pressed(event: KeyboardEvent) {
		if (!learning || event.key === 'Tab') return;
		event.preventDefault();
		footRefused = event.key === 'Escape' ? null : refusedPedal(event.code);
		if (event.key !== 'Escape' && !footRefused) feet = keepPedal(learning, event.code);
		learning = null;
	}
	onMount(() => {
		[sounds, voice, feet] = [soundsOn(), voiceOn(), pedals()];
		void look();
	});

	async function wipeMine() {
		await wipe(me);
		wiped = true;
		await look();
	}
</script>

<svelte:window onkeydowncapture={pressed} />
<svelte:head><title>This device · Grevan</title></svelte:head>
<div class="mt-5 grid gap-x-12 gap-y-8 lg:grid-cols-2">
	<section aria-labelledby="share-title">
		<h2 id="share-title" class="text-ink! text-[1.1rem]!">Whose device this is</h2>
		<p class="text-soft mt-1 max-w-prose">
			On a bench that several share, whoever comes next takes over with card and PIN, and a session
			ends after {data.site.idleMinutes} minutes without use.
			{#if data.device}A PIN is enough here until {siteMoment(data.device.until)}; each sign-in with
				a password renews that.{/if}
		</p>
		{#if form && 'done' in form}<div class="mt-3">
				<Notice kind="good"><p>Kept.</p></Notice>
			</div>{/if}
		<form
			method="post"
			action="?/share"
			use:enhance={() =>
				({ update }) =>
					update({ reset: false })}
			class="mt-3 grid max-w-[26rem] gap-3"
		>
			<FormRefusal {refusal} />
			<PlainField
				id="device-name"
				label="What it is called"
				name="name"
				maxlength={60}
				value={data.device?.name ?? ''}
				hint="Such as: bench tablet, boat shed."
			/>
			<label class="flex min-h-11 items-center gap-3"
				><input type="checkbox" name="shared" checked={data.device?.shared ?? false} /> A bench that several
				share</label
			>
			<button class="button justify-self-start">Keep this</button>
		</form>
		<h2 class="mt-8 text-ink! text-[1.1rem]!">Sounds and voice of this device</h2>
		<p class="text-soft mt-1 max-w-prose">
			Told apart by their rhythm, all of them low; a telephone shakes in the same rhythm.
		</p>
		<label class="mt-2 flex min-h-11 items-center gap-3"
			><input
				type="checkbox"
				bind:checked={sounds}
				onchange={() => {
					wantSounds(sounds);
					sound('kept');
				}}
			/> Sounds, and shaking</label
		>
		<p class="flex flex-wrap gap-2">
			<button type="button" class="button" onclick={() => sound('read')}>Read</button>
			<button type="button" class="button" onclick={() => sound('kept')}>Kept</button>
			<button type="button" class="button" onclick={() => sound('refused')}
				>Refused, or look again</button
			>
			<button type="button" class="button" onclick={() => sound('over')}>A clock has run out</button
			>
		</p>
		<label class="mt-3 flex min-h-11 items-center gap-3"
			><input type="checkbox" bind:checked={voice} onchange={() => wantVoice(voice)} /> Steps of an inspection
			are read aloud</label
		>
		<h2 class="mt-8 text-ink! text-[1.1rem]!">Foot switch</h2>
		<p class="text-soft mt-1 max-w-prose">
			A foot switch is a keyboard with few keys. Choose what a pedal does, then press it.
		</p>
		<ul class="mt-2">
			{#each PEDALS as { does, words } (does)}
				<li class="rowline flex min-h-12 flex-wrap items-center gap-3 py-1">
					<span class="min-w-40 flex-1">{words}</span>
					<span class="font-mono">{feet[does] ?? 'none'}</span>
					<button
						type="button"
						class={['button', learning === does && 'primary']}
						onclick={() => {
							learning = learning === does ? null : does;
							footRefused = null;
						}}>{learning === does ? 'Press the pedal …' : 'Set'}</button
					>
					{#if feet[does]}<button
							type="button"
							class="linkish min-h-11"
							onclick={() => (feet = keepPedal(does, null))}>none</button
						>{/if}
				</li>
			{/each}
		</ul>
		{#if footRefused}<div class="mt-2">
				<Notice kind="refusal"><p>{footRefused}</p></Notice>
			</div>{/if}
	</section>
	<section aria-labelledby="kept-title">
		<h2 id="kept-title" class="text-ink! text-[1.1rem]!">What this browser keeps of you</h2>
		{#if wiped}<div class="mt-3">
				<Notice kind="good"><p role="status">Wiped. What waits to be sent is still here.</p></Notice
				>
			</div>{/if}
		{#if kept}
			<table class="mt-2 w-full max-w-[30rem]">
				<tbody>
					<tr class="rowline"
						><th scope="row" class="py-2 text-left font-normal"
							>Answers and pictures that wait to be sent</th
						><td class="text-right font-mono">{kept.waiting}</td></tr
					>
					<tr class="rowline"
						><th scope="row" class="py-2 text-left font-normal"
							>What the server did not take, until you have seen it</th
						><td class="text-right font-mono">{kept.refused}</td></tr
					>
					<tr class="rowline"
						><th scope="row" class="py-2 text-left font-normal"
							>Answers and holds of inspections, to go on without a network</th
						><td class="text-right font-mono">{kept.known}</td></tr
					>
					<tr class="rowline"
						><th scope="row" class="py-2 text-left font-normal"
							>Pages of inspections, to go on without a network</th
						><td class="text-right font-mono">{kept.pages}</td></tr
					>
					{#if kept.ofOthers}<tr class="rowline"
							><th scope="row" class="py-2 text-left font-normal"
								>Of other people, for when they sign in</th
							><td class="text-right font-mono">{kept.ofOthers}</td></tr
						>{/if}
				</tbody>
			</table>
			<p class="text-soft mt-2 max-w-prose">
				Beside that: the files of the app, the theme, a mark of this device, and your session.
				Signing out takes the last two rows and the session away.
			</p>
			<button
				type="button"
				class="button mt-3"
				disabled={!kept.known && !kept.pages && !kept.refused}
				onclick={() => void wipeMine()}>Wipe it</button
			>
			{#if kept.waiting}<p class="text-soft mt-2 max-w-prose">
					What waits to be sent is not wiped: it is the only place where it is.
				</p>{/if}
		{:else}<p class="text-soft mt-2">Looking ...</p>{/if}
	</section>
</div>
