<script lang="ts">
	/** Marks the first and the last mark of a gauge on a picture of it, held upright: their angles come of that. */
	import { angleOnRim, findRim } from '$core/dial/rim';
	import { grayOf, type Point } from '$core/picture/gray';
	import LiveCamera from './LiveCamera.svelte';

	interface Props {
		onmarked: (fromDeg: number, toDeg: number) => void;
		onclose: () => void;
	}
	let { onmarked, onclose }: Props = $props();
	const RING = 0.36;
	let latest: ImageData | null = null;
	let still = $state.raw<ImageData | null>(null);
	let marks = $state.raw<Point[]>([]);
	let canvas: HTMLCanvasElement | undefined = $state();
	const rim = $derived.by(() => {
		if (!still) return null;
		const { width, height, data } = still;
		return findRim(grayOf(width, height, data), {
			x: width / 2,
			y: height / 2,
			radiusPx: width * RING
		});
	});
	$effect(() => {
		if (canvas && still) canvas.getContext('2d')?.putImageData(still, 0, 0);
	});
	const look = (picture: ImageData) => {
		latest = picture;
		return Promise.resolve();
	};
	function mark(event: PointerEvent) {
		if (!still || !rim) return;
		const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
		const at = {
			x: ((event.clientX - box.left) / box.width) * still.width,
			y: ((event.clientY - box.top) / box.height) * still.height
		};
		marks = marks.length === 2 ? [at] : [...marks, at];
		const [from, to] = marks;
		if (from && to) onmarked(Math.round(angleOnRim(rim, from)), Math.round(angleOnRim(rim, to)));
	}
</script>

{#if still}
	<div class="mt-2 w-full max-w-[34rem] border-2 border-ink bg-sheet p-2">
		<div class="relative max-w-[26rem] touch-none" onpointerdown={mark} role="presentation">
			<canvas bind:this={canvas} width={still.width} height={still.height} class="w-full"></canvas>
			<svg
				viewBox="0 0 {still.width} {still.height}"
				class="absolute inset-0 h-full w-full"
				aria-hidden="true"
			>
				{#each marks as { x, y }, i (i)}<circle
						cx={x}
						cy={y}
						r={still.width / 40}
						fill="none"
						stroke="#00606a"
						stroke-width={still.width / 120}
					/>{/each}
			</svg>
		</div>
		<p class="mt-2 font-semibold" role="status">
			{#if !rim}No dial is seen on it. Take another picture.
			{:else if marks.length === 0}Touch the first mark of the scale.
			{:else if marks.length === 1}Now the last mark.
			{:else}Both angles stand below. Touch again to begin anew.{/if}
		</p>
		<p class="mt-2 flex flex-wrap gap-2">
			<button type="button" class="button" onclick={() => ((still = null), (marks = []))}
				>Another picture</button
			>
			<button type="button" class="button" onclick={onclose}>Done</button>
		</p>
	</div>
{:else}
	<LiveCamera onframe={look} {onclose} square byHand="You can type the angles.">
		{#snippet over({ width, height })}
			<circle
				cx={width / 2}
				cy={height / 2}
				r={width * RING}
				fill="none"
				stroke="#fff"
				stroke-width={width / 80}
				stroke-dasharray={width / 30}
			/>
		{/snippet}
		{#snippet status()}Hold the gauge upright into the ring, its middle straight before you.{/snippet}
		{#snippet more()}<button
				type="button"
				class="button primary mt-1"
				onclick={() => (still = latest)}>Take the picture</button
			>{/snippet}
	</LiveCamera>
{/if}
