<script lang="ts">
	/** What stays ready at each place from day to day under the plan, above its floor: a curve that dips where things are away. */
	import type { Planner } from './planner.svelte';

	interface Props {
		planner: Planner;
	}
	let { planner }: Props = $props();
	/** A curve of steps: what is ready from day to day, its floor at the foot. */
	function steps(ready: readonly number[], top: number, bottom: number): string {
		const y = (value: number) => 26 - ((value - bottom) / Math.max(1, top - bottom)) * 22;
		return ready
			.map(
				(value, i) =>
					`${i === 0 ? 'M' : 'L'}${i} ${y(value).toFixed(1)}L${i + 1} ${y(value).toFixed(1)}`
			)
			.join('');
	}
	const shown = $derived(
		planner.curves.map((curve) => {
			const low = Math.min(curve.floor, ...curve.ready);
			const top = Math.max(curve.floor + 1, ...curve.ready);
			return { ...curve, low, top, short: curve.ready.filter((n) => n < curve.floor).length };
		})
	);
</script>

<div class="overflow-x-auto">
	<div class="min-w-[22rem]">
		<h2>Ready each day, above the floor that is written at its line</h2>
		{#each shown as curve (curve.place + curve.kind)}
			<div
				class="grid items-center py-0.5"
				style="grid-template-columns: 7rem 2rem 1fr"
				role="img"
				aria-label="{curve.kind} at {curve.place}: floor {curve.floor}, from {Math.min(
					...curve.ready
				)} to {Math.max(...curve.ready)} ready{curve.short
					? `, ${curve.short} days below the floor`
					: ''}"
			>
				<span class="pr-2 text-[0.85rem] leading-tight"
					><b class="font-semibold first-letter:uppercase">{curve.kind}</b><br /><span
						class="block overflow-hidden text-ellipsis whitespace-nowrap text-soft"
						>{curve.place}</span
					></span
				>
				<span
					class="self-end pr-1 pb-0.5 text-right font-mono text-[0.85rem] text-soft"
					title="floor">{curve.floor}</span
				>
				<span class="relative block">
					<svg
						viewBox="0 0 {planner.problem.days.length} 32"
						preserveAspectRatio="none"
						class="block h-9 w-full"
						aria-hidden="true"
					>
						<path
							d={steps(curve.ready, curve.top, curve.low)}
							fill="none"
							stroke={curve.short ? 'var(--held)' : 'var(--ready)'}
							stroke-width="2"
							vector-effect="non-scaling-stroke"
						/>
						<line
							x1="0"
							x2={planner.problem.days.length}
							y1={26 - ((curve.floor - curve.low) / Math.max(1, curve.top - curve.low)) * 22}
							y2={26 - ((curve.floor - curve.low) / Math.max(1, curve.top - curve.low)) * 22}
							stroke="var(--ink)"
							vector-effect="non-scaling-stroke"
						/>
					</svg>
				</span>
			</div>
		{/each}
	</div>
</div>
