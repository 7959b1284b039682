<script lang="ts">
	/** What cannot be told from a table is asked: how its numbers, days and letters are written. Stays once it was answered. */
	import { DAY_WAYS, ENCODINGS, NUMBER_WAYS, type TableAsks } from '$core/csv/ways';

	let { asks }: { asks: TableAsks | null } = $props();
	let said = $state({ numbers: '', days: '', encoding: '' });
	const open = $derived({
		numbers: asks?.numbers !== undefined || said.numbers !== '',
		days: asks?.days !== undefined || said.days !== '',
		encoding: asks?.encoding !== undefined || said.encoding !== ''
	});
	const samples = $derived(new Map(asks?.encoding?.map((one) => [one.encoding, one.sample])));
	const shown = (cells: string[] | undefined) => cells?.map((cell) => `“${cell}”`).join(', ');
</script>

{#if open.numbers || open.days || open.encoding}
	<fieldset class="grid gap-3 border-2 border-due bg-duetint p-3">
		<legend class="px-1 font-semibold">How is the table written?</legend>
		{#if open.encoding}<label
				><span class="label">Which line reads right?</span><select
					name="encoding"
					bind:value={said.encoding}
					class="w-full"
					><option value="">say it here</option>{#each ENCODINGS as encoding (encoding)}<option
							value={encoding}
							>{samples.get(encoding) ? `${samples.get(encoding)} (${encoding})` : encoding}</option
						>{/each}</select
				></label
			>{/if}
		{#if open.days}<label
				><span class="label"
					>Days{asks?.days ? ` such as ${shown(asks.days)}` : ''}: what stands first?</span
				><select name="days" bind:value={said.days}
					><option value="">say it here</option>{#each DAY_WAYS as way (way)}<option value={way}
							>{way}</option
						>{/each}</select
				></label
			>{/if}
		{#if open.numbers}<label
				><span class="label"
					>Numbers{asks?.numbers ? ` such as ${shown(asks.numbers)}` : ''}: what parts the decimals?</span
				><select name="numbers" bind:value={said.numbers}
					><option value="">say it here</option>{#each NUMBER_WAYS as way (way)}<option value={way}
							>a {way}</option
						>{/each}</select
				></label
			>{/if}
	</fieldset>
{/if}
