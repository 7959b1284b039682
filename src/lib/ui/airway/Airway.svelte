<script lang="ts">
	/**
	 * Equipment drawn as the path of the air, then what holds it. One ordered list of stations: a line on a wide
	 * screen, a column on a phone and on paper. Arrows walk it, Enter chooses.
	 */
	import { ZONE_NAMES, type Station } from '$core/airway/airway';
	import StateMark from '../mark/StateMark.svelte';
	import { layOut, STROKES } from './layout';

	export interface StationMark {
		mark: 'good' | 'reject' | 'watch' | 'not fitted' | 'open';
		/** Said after the station's name, such as "CURL, held". */
		says?: string;
		/** How often it failed; makes its mark grow. */
		weight?: number;
	}
	interface Props {
		stations: readonly Station[];
		marks: Record<string, StationMark>;
		label: string;
		current?: string | null;
		onchoose?: (key: string) => void;
	}
	let { stations, marks, label, current = null, onchoose }: Props = $props();

	const layout = $derived(layOut(stations));
	const WIDTH = 1000;
	const x = (column: number) => (column / layout.columns) * WIDTH;
	const inOrder = $derived(
		stations.map((station) => ({
			station,
			place: layout.placed.find((p) => p.station.key === station.key)
		}))
	);
	let list: HTMLOListElement | undefined = $state();
	let focused = $state<string | null>(null);
	const entry = $derived(current ?? focused ?? stations[0]?.key);

	function walk(event: KeyboardEvent) {
		const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
		if (!step || !onchoose) return;
		event.preventDefault();
		event.stopPropagation();
		const at = stations.findIndex((s) => s.key === (focused ?? entry));
		const next = stations[(at + step + stations.length) % stations.length];
		if (!next) return;
		focused = next.key;
		onchoose(next.key);
		list?.querySelector<HTMLElement>(`[data-station="${next.key}"]`)?.focus();
	}
	const sizeOf = (key: string) => {
		const base = key === current ? 26 : 18;
		return base + Math.min(16, (marks[key]?.weight ?? 0) * 3);
	};
	const said = (station: Station) => {
		const mark = marks[station.key];
		return `${station.name}, ${ZONE_NAMES[station.zone]}: ${mark?.says ?? mark?.mark ?? 'open'}`;
	};
</script>

<div class="airway" style="--height: {layout.height}px">
	<svg
		class="line"
		viewBox="0 0 {WIDTH} {layout.height}"
		preserveAspectRatio="none"
		aria-hidden="true"
	>
		{#each layout.strokes as stroke, i (i)}
			{@const style = STROKES[stroke.zone]}
			<path
				d={stroke.d(x)}
				fill="none"
				stroke={stroke.zone === 'holding' ? 'var(--soft)' : 'var(--ink)'}
				stroke-width={style.width}
				stroke-dasharray={style.dash}
				vector-effect="non-scaling-stroke"
			/>
			{#if style.double}
				<path
					d={stroke.d(x)}
					fill="none"
					stroke="var(--paper)"
					stroke-width="2"
					vector-effect="non-scaling-stroke"
				/>
			{/if}
		{/each}
	</svg>
	<ol bind:this={list} aria-label={label}>
		{#each inOrder as { station, place } (station.key)}
			<li
				class:above={place?.above}
				class:held={station.zone === 'holding'}
				class:dashed={station.zone === 'ambient'}
				style="--x: {((place?.column ?? 0) / layout.columns) * 100}%; --y: {place?.y ??
					0}px; --step: {100 / layout.columns}%"
			>
				{#snippet inside()}
					<span class="mark" class:now={station.key === current}>
						<StateMark state={marks[station.key]?.mark ?? 'open'} size={sizeOf(station.key)} />
					</span>
					<span class="name" aria-hidden="true"
						>{station.short}<span class="side"
							>{station.side ? `, ${station.side}` : ''}{marks[station.key]?.says
								? ` · ${marks[station.key]?.says}`
								: ''}</span
						></span
					>
				{/snippet}
				{#if onchoose}
					<button
						type="button"
						data-station={station.key}
						aria-label={said(station)}
						aria-current={station.key === current ? 'step' : undefined}
						tabindex={station.key === entry ? 0 : -1}
						onclick={() => onchoose(station.key)}
						onfocus={() => (focused = station.key)}
						onkeydown={walk}
					>
						{@render inside()}
					</button>
				{:else}
					<span class="plain" role="img" aria-label={said(station)}>{@render inside()}</span>
				{/if}
			</li>
		{/each}
	</ol>
</div>

<style>
	.airway {
		position: relative;
	}
	.line {
		display: none;
	}
	ol {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		border-left: 3px solid var(--ink);
		margin-left: 14px;
	}
	li.dashed {
		border-left-style: dashed;
	}
	li.held {
		border-left: 1px solid var(--soft);
	}
	button,
	.plain {
		display: flex;
		align-items: center;
		gap: 0.6rem;
		min-height: 44px;
		width: 100%;
		margin-left: -16px;
		text-align: left;
		background: none;
		border: 0;
		color: inherit;
		font: inherit;
	}
	button {
		cursor: pointer;
	}
	.mark {
		display: inline-flex;
		width: 30px;
		justify-content: center;
		background: var(--paper);
		border-radius: 50%;
	}
	.mark.now {
		outline: 3px solid var(--accent);
		outline-offset: 2px;
	}
	button[aria-current] .name {
		font-weight: 750;
	}
	@media (min-width: 48rem) {
		.airway {
			height: var(--height);
		}
		.line {
			display: block;
			position: absolute;
			inset: 0;
			width: 100%;
			height: 100%;
		}
		li,
		li.dashed,
		li.held {
			border: 0;
			margin: 0;
			position: absolute;
			left: var(--x);
			top: var(--y);
		}
		button,
		.plain {
			position: absolute;
			transform: translate(-50%, -22px);
			width: max(44px, 4.6rem);
			height: 72px;
			margin: 0;
			flex-direction: column;
			justify-content: flex-start;
			gap: 2px;
			padding-top: 7px;
		}
		.above button,
		.above .plain {
			flex-direction: column-reverse;
			transform: translate(-50%, -50px);
			padding: 0 0 7px;
		}
		.mark {
			width: 32px;
			height: 32px;
			margin: -1px;
			flex: none;
			align-items: center;
			background: none;
		}
		.mark.now {
			outline-offset: -1px;
			background: var(--paper);
		}
		.mark.now + .name {
			margin-top: 5px;
		}
		.name {
			font-size: 0.82rem;
			line-height: 1.1;
			white-space: nowrap;
		}
		.side {
			display: none;
		}
	}
	@media print {
		.line {
			display: none;
		}
	}
</style>
