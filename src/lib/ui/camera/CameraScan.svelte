<script lang="ts">
	/**
	 * Scans with the camera: hold it over one label after the other. What is read is marked and sounds; of several, the
	 * one in the middle is meant, or the one that is touched.
	 */
	import { onDestroy } from 'svelte';
	import { AIM, ScanSight, type Sight, type SightedLabel } from '$core/scan/sight';
	import { scannedWord } from '$core/scan/word';
	import { sound } from '$lib/ui/sound/sounds';
	import { LabelReader } from './label-reader';
	import LiveCamera from './LiveCamera.svelte';

	interface Props {
		onscan: (word: string) => unknown;
		onclose: () => void;
	}
	let { onscan, onclose }: Props = $props();

	/** Why the code in view is no tag. */
	let strange = $state<string | null>(null);
	let sight = $state.raw<Sight>({ labels: [], taken: null, says: 'nothing' });
	let took = $state<string | null>(null);
	const follow = new ScanSight();
	let reader: Promise<LabelReader> | null = null;
	const seconds = () => performance.now() / 1000;

	async function look(picture: ImageData) {
		const { width, height } = picture;
		reader ??= LabelReader.open();
		sight = follow.look(await (await reader).read(picture), { width, height }, seconds());
		if (sight.taken) take(sight.taken);
		else if (sight.labels.length === 0) strange = null;
	}
	function take({ text }: SightedLabel) {
		follow.take(text, seconds());
		const said = scannedWord(text);
		if ('refusal' in said) {
			strange = said.refusal;
			sound('refused');
			return;
		}
		[strange, took] = [null, said.word];
		sound('read');
		onscan(said.word);
	}
	onDestroy(() => void reader?.then((one) => one.stop()));
</script>

<LiveCamera onframe={look} {onclose} byHand="You can type what the label says.">
	{#snippet over({ width, height })}
		{#each sight.labels as label (label.text)}
			{@const held = took === label.text && !strange}
			{@const points = label.corners.map(({ x, y }) => `${x},${y}`).join(' ')}
			<polygon {points} fill="none" stroke="#fff" stroke-width={width / 50} />
			<polygon
				{points}
				fill={held ? 'rgb(0 96 106 / 0.3)' : 'none'}
				stroke="#00606a"
				stroke-width={width / 90}
				stroke-dasharray={held ? undefined : width / 45}
			/>
		{/each}
		{#if sight.says === 'several'}{#each [['#fff', 120], ['#00606a', 260]] as const as [stroke, part] (stroke)}<circle
					cx={width / 2}
					cy={height / 2}
					r={width * AIM}
					fill="none"
					{stroke}
					stroke-width={width / part}
				/>{/each}{/if}
	{/snippet}
	{#snippet status()}
		{#if strange}{strange}
		{:else if sight.says === 'several'}{sight.labels.length} labels in view: hold one in the middle, or
			touch it below.
		{:else if sight.says === 'hidden'}A label that is half hidden, or blurred. Show all of it.
		{:else if took && sight.says === 'one'}<span class="tag">{took}</span> read.
		{:else if took}<span class="tag">{took}</span> read. Hold it over the next.
		{:else}Hold it over a label.{/if}
	{/snippet}
	{#snippet more()}
		{#if sight.says === 'several'}<p class="mt-1 flex flex-wrap gap-2">
				{#each sight.labels as label (label.text)}<button
						type="button"
						class="button tag"
						onclick={() => take(label)}>{label.text}</button
					>{/each}
			</p>{/if}
	{/snippet}
</LiveCamera>
