<script lang="ts">
	/** Reads a gauge with the camera: hold its dial into the ring. What was read is a proposal; the person takes it. */
	import { onDestroy } from 'svelte';
	import type { GaugeDial } from '$core/dial/model';
	import type { DialReading } from '$core/dial/read';
	import { SteadyDial } from '$core/dial/steady';
	import { sound } from '$lib/ui/sound/sounds';
	import type { DialAsked, DialMessage } from '../../../workers/dial';
	import { Asks } from './asks';
	import LiveCamera from './LiveCamera.svelte';

	interface Props {
		dial: GaugeDial;
		/** Three pictures in a row agree. */
		onfigure: (bar: number) => void;
		onclose: () => void;
	}
	let { dial, onfigure, onclose }: Props = $props();
	/** Share of the picture that the ring's radius takes. */
	const RING = 0.36;
	let asks: Promise<Asks<DialAsked, DialMessage>> | null = null;
	let seen = $state.raw<DialReading | null>(null);
	let why = $state('Hold the dial into the ring.');
	let found = $state.raw<{ bar: number; plusMinusBar: number } | null>(null);
	let steady = new SteadyDial();

	async function open() {
		const { default: Dial } = await import('../../../workers/dial.ts?worker');
		return new Asks<DialAsked, DialMessage>(new Dial());
	}
	async function look(picture: ImageData) {
		if (found) return;
		const side = picture.width;
		asks ??= open();
		const said = await (
			await asks
		).ask({ picture, dial, guess: { x: side / 2, y: side / 2, radiusPx: side * RING } }, [
			picture.data.buffer
		]);
		if ('refused' in said) {
			[seen, why] = [null, said.message];
			steady.take(null);
			return;
		}
		seen = said;
		found = steady.take(said);
		if (!found) return;
		sound('read');
		onfigure(Math.round(found.bar));
	}
	function again() {
		[found, seen, why] = [null, null, 'Hold the dial into the ring.'];
		steady = new SteadyDial();
	}
	onDestroy(() => void asks?.then((one) => one.stop()));
</script>

<LiveCamera onframe={look} {onclose} square byHand="You can read the gauge and type the figure.">
	{#snippet over({ width, height })}
		{#each [['#fff', 80], ['#00606a', 200]] as const as [stroke, part] (stroke)}
			<circle
				cx={width / 2}
				cy={height / 2}
				r={width * RING}
				fill="none"
				{stroke}
				stroke-width={width / part}
				stroke-dasharray={seen ? undefined : width / 30}
			/>
			{#if seen}<polygon
					points={seen.rim.map(({ x, y }) => `${x},${y}`).join(' ')}
					fill="none"
					{stroke}
					stroke-width={width / part}
				/><line
					x1={seen.needle[0].x}
					y1={seen.needle[0].y}
					x2={seen.needle[1].x}
					y2={seen.needle[1].y}
					{stroke}
					stroke-width={width / part}
				/>{/if}
		{/each}
	{/snippet}
	{#snippet status()}
		{#if found}<span class="font-mono text-[1.6rem]">{found.bar.toFixed(0)} bar</span> give or take {Math.max(
				1,
				found.plusMinusBar
			).toFixed(0)}. Right? <kbd>Enter</kbd> takes it.
		{:else if seen}<span class="font-mono text-[1.6rem]">{seen.bar.toFixed(0)} bar</span> Keep it there
			…
		{:else}{why}{/if}
	{/snippet}
	{#snippet more()}
		{#if found}<button type="button" class="button mt-1" onclick={again}>Read it again</button>{/if}
	{/snippet}
</LiveCamera>
