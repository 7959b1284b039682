<script lang="ts">
	/** Listens for a distress unit's alarm, or for a hiss while a pressure is held: a hint, never an answer. */
	import { onDestroy } from 'svelte';
	import { AlarmEar, type AlarmHeard } from '$core/listen/alarm';
	import { HissEar, type HissHint } from '$core/listen/hiss';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { openMicrophone, type Listening, NoSound } from './microphone';

	interface Props {
		what: 'alarm' | 'hiss';
	}
	let { what }: Props = $props();
	let microphone = $state.raw<Listening | null>(null);
	let asking = $state(false);
	let refusal = $state<string | null>(null);
	let alarm = $state.raw<AlarmHeard | null>(null);
	let hiss = $state.raw<HissHint | null>(null);
	let ear: { alarm: AlarmEar } | { hiss: HissEar } | null = null;
	let left = false;

	async function listen() {
		[asking, refusal, alarm, hiss] = [true, null, null, null];
		try {
			const opened = await openMicrophone(take);
			// The page was left while its person was asked.
			if (left) return opened.stop();
			ear =
				what === 'alarm'
					? { alarm: new AlarmEar(opened.sampleRate) }
					: { hiss: new HissEar(opened.sampleRate) };
			microphone = opened;
		} catch (error) {
			refusal = error instanceof NoSound ? error.message : 'The microphone did not open.';
		} finally {
			asking = false;
		}
	}
	function take(samples: Float32Array) {
		if (!ear) return;
		if ('alarm' in ear) alarm = ear.alarm.hear(samples);
		else hiss = ear.hiss.hear(samples);
	}
	function stop() {
		microphone?.stop();
		[microphone, ear] = [null, null];
	}
	onDestroy(() => {
		left = true;
		stop();
	});
</script>

<svelte:document
	onvisibilitychange={() => {
		if (document.visibilityState === 'hidden' && microphone) stop();
	}}
/>
<div class="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
	{#if microphone}
		<button type="button" class="button" onclick={stop}>Stop listening</button>
		<p class="font-semibold" role="status">
			{#if alarm}An alarm sounds, {alarm.perS.toFixed(1)} times a second at {alarm.hz.toFixed(0)} Hz.
				Is it this unit’s?
			{:else if hiss}A hiss began, {hiss.aboveDb.toFixed(0)} dB above before. A hint where to look, no
				verdict: the gauge decides.
			{:else if what === 'alarm'}Listening for the alarm.
			{:else}Listening for a hiss. Keep the device where it is.{/if}
		</p>
	{:else}
		<button type="button" class="button" disabled={asking} onclick={listen}
			>{what === 'alarm' ? 'Listen for the alarm' : 'Listen for a hiss'}</button
		>
	{/if}
	{#if refusal}<div class="w-full">
			<Notice kind="refusal"><p>{refusal}</p></Notice>
		</div>{/if}
</div>
