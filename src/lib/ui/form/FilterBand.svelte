<script lang="ts">
	/** A filter code as its parts with the band colours that the standards fix; the letter always stands there. */
	import { EN_BANDS, EN_GAS_TYPES, parseEn, parseUs, US_BANDS } from '$core/filters/filter-code';

	interface Props {
		code: string;
		scheme: 'en' | 'us';
		small?: boolean;
	}
	let { code, scheme, small = false }: Props = $props();

	const CLASSED = ['A', 'B', 'E', 'K'];
	const parts = $derived.by(() => {
		if (scheme === 'us') {
			const us = parseUs(code);
			return [
				...(us?.gas ?? []).map((type) => ({ text: type, ...US_BANDS[type] })),
				...(us?.particle ? [{ text: us.particle, ...US_BANDS.P }] : [])
			];
		}
		const en = parseEn(code);
		return [
			...EN_GAS_TYPES.filter((type) => en?.gas[type]).map((type) => ({
				text: CLASSED.includes(type) ? `${type}${en?.gas[type]}` : type,
				name: '',
				...EN_BANDS[type]
			})),
			...(en?.particle ? [{ text: en.particle, name: '', ...EN_BANDS.P }] : [])
		];
	});
</script>

{#if parts.length === 0}
	<span class="tag">{code}</span>
{:else}
	<span
		class="inline-flex w-fit justify-self-start overflow-hidden rounded border-[1.5px] border-ink bg-sheet align-middle"
		title={parts.map((p) => `${p.text}: ${p.colour}`).join(', ')}
	>
		{#each parts as part, i (i)}
			<span class="flex flex-col {i ? 'border-l border-rule' : ''}">
				<span
					class="font-mono font-semibold {small
						? 'px-2 text-[0.95rem]'
						: 'px-5 py-1 text-[1.5rem]'}">{part.text}</span
				>
				<span class="{small ? 'h-1.5' : 'h-3'} border-t border-rule" style="background: {part.hex}"
				></span>
			</span>
		{/each}
	</span>
{/if}
