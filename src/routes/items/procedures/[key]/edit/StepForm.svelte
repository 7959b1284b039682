<script lang="ts">
	/** The words of one step. */
	import type { Station } from '$core/airway/airway';
	import type { Step } from '$core/inspection/procedure';

	interface Props {
		step: Step;
		stations: readonly Station[];
		codes: readonly { code: string; name: string }[];
		onadd: () => void;
		onremove: () => void;
	}
	let { step = $bindable(), stations, codes, onadd, onremove }: Props = $props();
	let adding = $state('');
	const WORDS = [
		['title', 'Title'],
		['action', 'What to do'],
		['good', 'Good looks like'],
		['why', 'Why, for someone new']
	] as const;
</script>

<div class="grid gap-3 border-l-2 border-rule py-3 pl-4">
	{#each WORDS as [field, label] (field)}
		<label
			><span class="label">{label}</span><input
				bind:value={step[field]}
				maxlength="300"
				class="w-full"
			/></label
		>
	{/each}
	<div class="flex flex-wrap gap-4">
		<label
			><span class="label">Station</span><select bind:value={step.station}
				>{#each stations as s (s.key)}<option value={s.key}>{s.name}</option>{/each}</select
			></label
		>
		{#if !step.reading}<label
				><span class="label">Answered by</span><select bind:value={step.kind}
					><option value="look">look</option><option value="feel">feel or listen</option><option
						value="confirm">confirm</option
					></select
				></label
			>{/if}
		<label class="flex min-h-11 items-center gap-2 self-end"
			><input type="checkbox" class="h-5 w-5" bind:checked={step.ifFitted} /> if fitted</label
		>
		<label class="flex min-h-11 items-center gap-2 self-end"
			><input type="checkbox" class="h-5 w-5" bind:checked={step.secondPerson} /> by a second person</label
		>
	</div>
	<div>
		<span class="label">Reject codes, likeliest first</span>
		<div class="flex flex-wrap items-center gap-2">
			{#each step.rejects as code (code)}<button
					type="button"
					class="button px-3!"
					onclick={() => (step.rejects = step.rejects.filter((c) => c !== code))}
					aria-label="Take {code} out"><span class="tag">{code}</span> ×</button
				>{/each}
			<select
				bind:value={adding}
				aria-label="Add a reject code"
				onchange={() => {
					if (adding && !step.rejects.includes(adding)) step.rejects = [...step.rejects, adding];
					adding = '';
				}}
				><option value="">add a code</option>{#each codes as c (c.code)}<option value={c.code}
						>{c.code}, {c.name}</option
					>{/each}</select
			>
		</div>
	</div>
	<div class="flex flex-wrap gap-4">
		<button type="button" class="button" onclick={onadd}>Add a step after it</button>
		{#if !step.reading}<button type="button" class="linkish min-h-11 text-held!" onclick={onremove}
				>Take this step out</button
			>{/if}
	</div>
</div>
