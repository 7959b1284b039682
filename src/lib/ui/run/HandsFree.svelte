<script lang="ts">
	/** For hands that are full: the step read aloud, seen from two metres, answered by foot. */
	import { onMount } from 'svelte';
	import { hush, say } from '$lib/ui/sound/voice';
	import { farOn, voiceOn, wantFar, wantVoice } from '$lib/ui/sound/wanted';
	import { pedalOf, type PedalDoes, type Pedals, pedals } from './pedal';

	interface Props {
		/** What is to be done now, in words. */
		words: string;
		/** The page is drawn for two metres. */
		far: boolean;
		onpedal: (does: Exclude<PedalDoes, 'aloud'>) => void;
	}
	let { words, far = $bindable(), onpedal }: Props = $props();
	let aloud = $state(false);
	let kept: Pedals = {};

	onMount(() => {
		// A telephone is read in the hand.
		const wide = matchMedia('(min-width: 40rem)').matches;
		[aloud, far, kept] = [voiceOn(), wide && farOn(), pedals()];
		return hush;
	});
	$effect(() => {
		if (aloud) say(words);
	});
	function pressed(event: KeyboardEvent) {
		const does = pedalOf(event.code, kept);
		if (!does) return;
		event.preventDefault();
		event.stopImmediatePropagation();
		if (event.repeat) return;
		if (does === 'aloud') say(words);
		else onpedal(does);
	}
</script>

<svelte:window onkeydowncapture={pressed} />
<div class="flex flex-wrap gap-2">
	<button
		type="button"
		class={['button', aloud && 'primary']}
		aria-pressed={aloud}
		onclick={() => {
			aloud = !aloud;
			wantVoice(aloud);
			if (!aloud) hush();
		}}>Aloud</button
	>
	<button
		type="button"
		class={['button max-sm:hidden', far && 'primary']}
		aria-pressed={far}
		onclick={() => {
			far = !far;
			wantFar(far);
		}}>From two metres</button
	>
</div>
