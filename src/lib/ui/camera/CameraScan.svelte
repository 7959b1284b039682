<script lang="ts">
	/**
	 * Scans with the camera: hold it over one label after the other. What is read is marked and sounds; of several, the
	 * one in the middle is meant, or the one that is touched.
	 */
	import { onDestroy, onMount } from 'svelte';
	import { AIM, ScanSight, type Sight, type SightedLabel } from '$core/scan/sight';
	import { scannedWord } from '$core/scan/word';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { sound } from '$lib/ui/sound/sounds';
	import { frameOf, NoPicture, openCamera, type OpenCamera } from './camera';
	import { LabelReader } from './label-reader';

	interface Props {
		onscan: (word: string) => unknown;
		onclose: () => void;
	}
	let { onscan, onclose }: Props = $props();

	let video: HTMLVideoElement | undefined = $state();
	let stage = $state<'asking' | 'looking' | 'off'>('asking');
	let refusal = $state<string | null>(null);
	/** Why the code in view is no tag. */
	let strange = $state<string | null>(null);
	let sight = $state.raw<Sight>({ labels: [], taken: null, says: 'nothing' });
	let frame = $state.raw({ width: 4, height: 3 });
	let took = $state.raw<string[]>([]);
	let lit = $state(false);
	let camera = $state.raw<OpenCamera | null>(null);
	const follow = new ScanSight();
	let reader: LabelReader | null = null;
	let left = false;
	/** Looked at no more often than this, ms: a battery lasts a shift. */
	const EVERY_MS = 80;

	async function open() {
		[stage, refusal] = ['asking', null];
		try {
			const opened = await openCamera(() => away('The camera went away.'));
			if (left) return opened.stop();
			camera = opened;
			reader ??= await LabelReader.open();
			if (left || !video) return stop();
			video.srcObject = opened.stream;
			await video.play();
			stage = 'looking';
			void look();
		} catch (error) {
			stop();
			refusal = error instanceof NoPicture ? error.message : 'The camera did not open.';
		}
	}
	async function look() {
		const canvas = document.createElement('canvas');
		while (stage === 'looking' && reader && video) {
			const began = performance.now();
			const picture = frameOf(video, canvas);
			if (picture) {
				const size = { width: picture.width, height: picture.height };
				try {
					const seen = await reader.read(picture);
					if (stage !== 'looking') return;
					frame = size;
					sight = follow.look(seen, size, performance.now() / 1000);
					if (sight.taken) take(sight.taken);
					else if (sight.labels.length === 0) strange = null;
				} catch {
					return away('The picture could not be read. Open the camera again, or type the tag.');
				}
			}
			await new Promise((go) => setTimeout(go, Math.max(0, began + EVERY_MS - performance.now())));
		}
	}
	function take({ text }: SightedLabel) {
		follow.take(text, performance.now() / 1000);
		const said = scannedWord(text);
		if ('refusal' in said) {
			strange = said.refusal;
			sound('refused');
			return;
		}
		strange = null;
		took = [said.word, ...took].slice(0, 6);
		sound('read');
		onscan(said.word);
	}
	function stop() {
		camera?.stop();
		[camera, stage, lit] = [null, 'off', false];
		sight = { labels: [], taken: null, says: 'nothing' };
	}
	function away(why: string) {
		if (stage === 'off') return;
		stop();
		refusal = why;
	}
	async function torch() {
		lit = !lit;
		await camera?.torch?.(lit).catch(() => (lit = false));
	}
	onMount(() => void open());
	onDestroy(() => {
		left = true;
		stop();
		reader?.stop();
	});
</script>

<svelte:document
	onvisibilitychange={() => {
		if (document.visibilityState === 'hidden')
			away('The camera was let go as the screen went away.');
	}}
/>
<section class="mt-2 w-full max-w-[34rem] border-2 border-ink bg-sheet p-2" aria-label="Camera">
	<div
		class={['relative overflow-hidden bg-black', stage === 'off' && 'hidden']}
		style:aspect-ratio="{frame.width} / {frame.height}"
		style:max-width="calc(38dvh * {frame.width / frame.height})"
	>
		<video
			bind:this={video}
			playsinline
			muted
			class="h-full w-full object-fill"
			aria-label="What the camera sees"
		></video>
		<svg
			viewBox="0 0 {frame.width} {frame.height}"
			class="absolute inset-0 h-full w-full"
			aria-hidden="true"
		>
			{#each sight.labels as label (label.text)}
				{@const held = took[0] === label.text && !strange}
				{@const points = label.corners.map(({ x, y }) => `${x},${y}`).join(' ')}
				<polygon {points} fill="none" stroke="#fff" stroke-width={frame.width / 50} />
				<polygon
					{points}
					fill={held ? 'rgb(0 96 106 / 0.3)' : 'none'}
					stroke="#00606a"
					stroke-width={frame.width / 90}
					stroke-dasharray={held ? undefined : frame.width / 45}
				/>
			{/each}
			{#if sight.says === 'several'}{#each [['#fff', 120], ['#00606a', 260]] as const as [stroke, part] (stroke)}<circle
						cx={frame.width / 2}
						cy={frame.height / 2}
						r={frame.width * AIM}
						fill="none"
						{stroke}
						stroke-width={frame.width / part}
					/>{/each}{/if}
		</svg>
	</div>
	<p class="mt-2 min-h-8 text-[1.15rem] font-semibold" role="status">
		{#if stage === 'asking'}Asking for the camera …
		{:else if stage === 'off'}The camera is shut.
		{:else if strange}{strange}
		{:else if sight.says === 'several'}{sight.labels.length} labels in view: hold one in the middle, or
			touch it below.
		{:else if sight.says === 'hidden'}A label that is half hidden, or blurred. Show all of it.
		{:else if took[0] && sight.says === 'one'}<span class="tag">{took[0]}</span> read.
		{:else if took[0]}<span class="tag">{took[0]}</span> read. Hold it over the next.
		{:else}Hold it over a label.{/if}
	</p>
	{#if stage === 'looking' && sight.says === 'several'}<p class="mt-1 flex flex-wrap gap-2">
			{#each sight.labels as label (label.text)}<button
					type="button"
					class="button tag"
					onclick={() => take(label)}>{label.text}</button
				>{/each}
		</p>{/if}
	{#if refusal}<div class="mt-1">
			<Notice kind="refusal"><p>{refusal}</p></Notice>
		</div>{/if}
	<div class="mt-2 flex flex-wrap gap-2">
		{#if camera?.torch}<button
				type="button"
				class={['button', lit && 'primary']}
				aria-pressed={lit}
				onclick={torch}>Lamp</button
			>{/if}
		{#if stage === 'off'}<button type="button" class="button" onclick={open}>Open it again</button
			>{/if}
		<button type="button" class="button" onclick={onclose}>Shut the camera</button>
	</div>
</section>
