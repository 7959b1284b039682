<script lang="ts">
	/** Listens for the warning whistle while a set is let down, says when it began, and shows what was heard. */
	import { onDestroy, tick } from 'svelte';
	import { lateBy, type OnsetFigure } from '$core/listen/onset-figure';
	import { STRIP_ROWS, WHISTLE_HZ, WhistleEar } from '$core/listen/whistle';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { sound } from '$lib/ui/sound/sounds';
	import { openMicrophone, type Listening, NoSound } from './microphone';

	interface Props {
		/** It begins to listen: what it says is to be seen. */
		onlisten: () => void;
		/** It may be the whistle, or it is: the gauge is read now. Told how many seconds ago it began. */
		onheard: (agoS: number) => void;
		/** What the bench showed as it began; null: it is read by eye. */
		figure?: OnsetFigure | null;
	}
	let { onlisten, onheard, figure = null }: Props = $props();

	/** Columns of the picture: about six seconds. */
	const COLUMNS = 384;
	/** Levels that are drawn from empty to full, dB below full scale. */
	const [QUIET_DB, LOUD_DB] = [-90, -30];
	let stage = $state<'off' | 'asking' | 'listening'>('off');
	let refusal = $state<string | null>(null);
	/** Seconds since the first sample; of the whistle, when it began. */
	let [now, begun, sure] = $state([0, null as number | null, false]);
	let hz = $state(0);
	let strip: HTMLCanvasElement | undefined = $state();
	let microphone: Listening | null = null;
	let ear: WhistleEar | null = null;
	let heardSamples = 0;
	let ink = '#00606a';
	let left = false;

	async function listen() {
		[stage, refusal, begun, sure, now] = ['asking', null, null, false, 0];
		heardSamples = 0;
		try {
			const opened = await openMicrophone(take);
			// The page was left while its person was asked.
			if (left) return opened.stop();
			microphone = opened;
			ear = new WhistleEar(opened.sampleRate);
			stage = 'listening';
			await tick();
			ink = strip ? getComputedStyle(strip).color : ink;
			onlisten();
		} catch (error) {
			refusal = error instanceof NoSound ? error.message : 'The microphone did not open.';
			stage = 'off';
		}
	}
	function take(samples: Float32Array) {
		if (!ear) return;
		heardSamples += samples.length;
		now = heardSamples / ear.sampleRate;
		const found = ear.hear(samples, draw);
		const perhaps = ear.perhaps();
		if (begun === null && perhaps) {
			[begun, hz] = [perhaps.sinceS, perhaps.hz];
			sound('read');
			onheard(now - perhaps.sinceS);
		}
		if (found[0]) [begun, hz, sure] = [found[0].onsetS, found[0].hz, true];
		// What might have been one and ended was none.
		else if (!sure && begun !== null && !perhaps && now - begun > 1) begun = null;
	}
	function draw(column: Float32Array) {
		const brush = strip?.getContext('2d');
		if (!strip || !brush) return;
		const { width, height } = strip;
		brush.globalAlpha = 1;
		brush.globalCompositeOperation = 'copy';
		brush.drawImage(strip, -1, 0);
		brush.globalCompositeOperation = 'source-over';
		// In the colours of the theme.
		brush.fillStyle = ink;
		const rise = height / STRIP_ROWS;
		for (let row = 0; row < STRIP_ROWS; row++) {
			const level = ((column[row] ?? QUIET_DB) - QUIET_DB) / (LOUD_DB - QUIET_DB);
			brush.clearRect(width - 1, height - (row + 1) * rise, 1, rise);
			brush.globalAlpha = Math.max(0, Math.min(1, level));
			brush.fillRect(width - 1, height - (row + 1) * rise, 1, rise);
		}
	}
	function stop() {
		microphone?.stop();
		[microphone, ear, stage] = [null, null, 'off'];
	}
	/** A device that slept heard nothing meanwhile. */
	function slept() {
		if (document.visibilityState === 'visible' || stage !== 'listening') return;
		stop();
		refusal = 'Listening ended as the screen went away. Begin the let-down again.';
	}
	onDestroy(() => {
		left = true;
		stop();
	});
</script>

<svelte:document onvisibilitychange={slept} />
<div class="mb-3">
	{#if stage === 'off'}
		<button type="button" class="button" onclick={listen}>Listen with this device</button>
	{:else}
		<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
			<button type="button" class="button" onclick={stop} disabled={stage === 'asking'}
				>Stop listening</button
			>
			<p class="text-[1.2rem] font-semibold" role="status">
				{#if stage === 'asking'}Asking for the microphone …
				{:else if begun === null}Listening. Let it down slowly.
				{:else if sure}The whistle began {(now - begun).toFixed(0)} s ago, at {hz.toFixed(0)} Hz.
				{:else}Is that it? Read the gauge now.{/if}
				{#if begun !== null && figure}The bench showed {figure.bar.toFixed(1)} bar, give or take {figure.plusMinusBar.toFixed(
						1
					)}.{/if}
			</p>
		</div>
		<canvas
			bind:this={strip}
			width={COLUMNS}
			height="96"
			class="mt-2 h-12 w-full border sm:h-20 border-rule bg-paper text-accent"
			aria-label="What is heard, {WHISTLE_HZ.least} to {WHISTLE_HZ.most} Hz, newest on the right"
		></canvas>
		<p class="text-soft mt-1 text-[0.9rem]">
			It tells about half a second late{#if begun !== null && !figure}: what you read now is up to {lateBy(
					begun,
					now,
					1
				).toFixed(0)} bar low at a bar a second{:else}: let down slower than a bar a second{/if}. It
			hears, you decide. Nothing of the sound is kept or sent.
		</p>
	{/if}
	{#if refusal}<div class="mt-2">
			<Notice kind="refusal"><p>{refusal}</p></Notice>
		</div>{/if}
</div>
