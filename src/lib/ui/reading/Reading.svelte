<script lang="ts">
	/** A reading: large figure, small unit, its limit beside it. */
	import { besideHere } from './site-units';

	interface Props {
		value: string;
		unit?: string;
		limit?: string;
		label?: string;
		large?: boolean;
	}
	let { value, unit = '', limit, label, large = true }: Props = $props();
	const beside = $derived(besideHere(Number(value), unit));
</script>

<div>
	{#if label}<div class="text-soft text-[0.9rem]">{label}</div>{/if}
	<div
		class="font-mono leading-none font-semibold tracking-tight {large
			? 'text-[2.4rem]'
			: 'text-[1.4rem]'}"
	>
		{value}<span class="text-soft ml-1 font-sans text-[1rem] font-medium tracking-normal"
			>{unit}{beside ? ` · ${beside}` : ''}</span
		>
		{#if limit}<span class="text-soft ml-3 font-sans text-[0.95rem] font-normal tracking-normal"
				>{limit}</span
			>{/if}
	</div>
</div>
