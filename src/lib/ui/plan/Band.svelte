<script lang="ts">
	/** What will be ready of a kind at a place: the middle, a band that holds nine of ten fleets, and the floor. */
	import type { GroupForecast } from '$core/plan/forecast/fleet';

	interface Props {
		group: GroupForecast;
		/** As it would be after a change. */
		after?: GroupForecast | undefined;
	}
	let { group, after }: Props = $props();
	const all = $derived([...group.days, ...(after?.days ?? [])]);
	const top = $derived(Math.max(group.floor + 1, ...all.map(({ high }) => high)));
	const low = $derived(Math.min(group.floor - 1, ...all.map((day) => day.low)));
	const HIGH = 44;
	const y = (value: number) => 2 + ((top - value) / Math.max(1, top - low)) * (HIGH - 4);
	const line = (values: readonly number[]) =>
		values
			.map(
				(value, i) => `${i ? 'L' : 'M'}${i} ${y(value).toFixed(1)}L${i + 1} ${y(value).toFixed(1)}`
			)
			.join('');
	const band = $derived(
		`${line(group.days.map(({ high }) => high))}${group.days
			.map(({ low: value }, i) => [i, value] as const)
			.reverse()
			.map(([i, value]) => `L${i + 1} ${y(value).toFixed(1)}L${i} ${y(value).toFixed(1)}`)
			.join('')}Z`
	);
	const worst = $derived(Math.min(...group.days.map((day) => day.low)));
</script>

<div
	class="relative"
	role="img"
	aria-label="Ready from day to day: floor {group.floor}, in nine of ten fleets at least {worst}"
>
	<svg
		viewBox="0 0 {group.days.length} {HIGH}"
		preserveAspectRatio="none"
		class="block h-11 w-full"
		aria-hidden="true"
	>
		<path d={band} fill="var(--accent)" opacity="0.22" />
		<path
			d={line(group.days.map(({ middle }) => middle))}
			fill="none"
			stroke="var(--accent)"
			stroke-width="2"
			vector-effect="non-scaling-stroke"
		/>
		{#if after}<path
				d={line(after.days.map(({ middle }) => middle))}
				fill="none"
				stroke="var(--due)"
				stroke-width="2"
				stroke-dasharray="5 3"
				vector-effect="non-scaling-stroke"
			/>{/if}
		<line
			x1="0"
			x2={group.days.length}
			y1={y(group.floor)}
			y2={y(group.floor)}
			stroke="var(--ink)"
			vector-effect="non-scaling-stroke"
		/>
	</svg>
</div>
