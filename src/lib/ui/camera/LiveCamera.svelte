<script lang="ts">
	/**
	 * The picture of this device's camera, looked at frame by frame while it is open: asked for when it is used, let go
	 * when the screen goes away, refused with words, lit where it has a lamp.
	 */
	import { onDestroy, onMount, type Snippet } from 'svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { frameOf, NoPicture, openCamera, type OpenCamera } from './camera';

	interface Props {
		/** Looks at a frame; the next one comes when it is through. Throws where it could not be looked at. */
		onframe: (picture: ImageData) => Promise<void>;
		onclose: () => void;
		/** Looked at: the whole picture, or the square in its middle. */
		square?: boolean;
		/** What the camera is for, to be done by hand without it. */
		byHand: string;
		/** Drawn over the picture, in its pixels. */
		over: Snippet<[{ width: number; height: number }]>;
		/** What is said while it looks. */
		status: Snippet;
		more?: Snippet;
	}
	let { onframe, onclose, square = false, byHand, over, status, more }: Props = $props();

	let video: HTMLVideoElement | undefined = $state();
	let stage = $state<'asking' | 'looking' | 'off'>('asking');
	let refusal = $state<string | null>(null);
	let frame = $state.raw({ width: 4, height: 3 });
	let lit = $state(false);
	let camera = $state.raw<OpenCamera | null>(null);
	let left = false;
	/** Looked at no more often than this, ms: a battery lasts a shift. */
	const EVERY_MS = 80;

	async function open() {
		[stage, refusal] = ['asking', null];
		try {
			const opened = await openCamera(() => away('The camera went away.'));
			// The page was left while its person was asked.
			if (left || !video) return opened.stop();
			camera = opened;
			video.srcObject = opened.stream;
			await video.play();
			stage = 'looking';
			void look();
		} catch (error) {
			stop();
			refusal = `${error instanceof NoPicture ? error.message : 'The camera did not open.'} ${byHand}`;
		}
	}
	async function look() {
		const canvas = document.createElement('canvas');
		while (stage === 'looking' && video) {
			const began = performance.now();
			const picture = frameOf(video, canvas, square);
			if (picture) {
				frame = { width: picture.width, height: picture.height };
				try {
					await onframe(picture);
				} catch {
					return away('The picture could not be looked at.');
				}
			}
			await new Promise((go) => setTimeout(go, Math.max(0, began + EVERY_MS - performance.now())));
		}
	}
	function stop() {
		camera?.stop();
		[camera, stage, lit] = [null, 'off', false];
	}
	function away(why: string) {
		if (stage === 'off') return;
		stop();
		refusal = `${why} Open it again. ${byHand}`;
	}
	async function torch() {
		lit = !lit;
		await camera?.torch?.(lit).catch(() => (lit = false));
	}
	onMount(() => void open());
	onDestroy(() => {
		left = true;
		stop();
	});
</script>

<svelte:document
	onvisibilitychange={() => {
		if (document.visibilityState === 'hidden')
			away('The camera was let go as the screen went away.');
	}}
/>
<section
	class="mt-2 grid w-full max-w-[46rem] items-start gap-x-4 border-2 border-ink bg-sheet p-2 sm:grid-cols-[minmax(0,auto)_minmax(12rem,1fr)]"
	aria-label="Camera"
>
	<div
		class={['relative overflow-hidden bg-black', stage === 'off' && 'hidden']}
		style:aspect-ratio="{frame.width} / {frame.height}"
		style:width="min(78vw, calc(38dvh * {frame.width / frame.height}))"
	>
		<video
			bind:this={video}
			playsinline
			muted
			class={['h-full w-full', square ? 'object-cover' : 'object-fill']}
			aria-label="What the camera sees"
		></video>
		<svg
			viewBox="0 0 {frame.width} {frame.height}"
			class="absolute inset-0 h-full w-full"
			aria-hidden="true">{@render over(frame)}</svg
		>
	</div>
	<div class={stage === 'off' ? 'sm:col-span-2' : ''}>
		<p class="max-sm:mt-2 min-h-8 text-[1.15rem] font-semibold" role="status">
			{#if stage === 'asking'}Asking for the camera …
			{:else if stage === 'off'}The camera is shut.
			{:else}{@render status()}{/if}
		</p>
		{#if stage === 'looking'}{@render more?.()}{/if}
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
	</div>
</section>
