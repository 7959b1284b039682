<script lang="ts">
	/** Opens why a verdict holds: rule, source, inputs, distance to the limit, what would change it. */
	import { readableNumber } from '$core/units/number';
	import { Dialog } from 'bits-ui';
	import X from '@lucide/svelte/icons/x';
	import { originLine, type Reason } from '$core/verdict';

	interface Props {
		title: string;
		reasons: Reason[];
		changesIf?: string[];
		conditions?: string[];
		/** Words of the link that opens it. */
		label?: string;
	}
	let { title, reasons, changesIf = [], conditions = [], label = 'Because' }: Props = $props();
	let open = $state(false);
	const number = (value: number) => readableNumber(value, 4);
</script>

<Dialog.Root bind:open>
	<Dialog.Trigger
		class="linkish no-print inline-flex min-h-11 items-center font-semibold text-accent"
	>
		{label}
	</Dialog.Trigger>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-black/30" />
		<Dialog.Content
			class="fixed inset-y-0 right-0 z-50 w-full max-w-[34rem] overflow-y-auto border-l-2 border-ink bg-sheet p-6"
			interactOutsideBehavior="close"
		>
			<div class="flex items-start justify-between gap-4">
				<Dialog.Title class="text-[1.35rem] leading-tight font-bold">{title}</Dialog.Title>
				<Dialog.Close class="button shrink-0" aria-label="Close"
					><X size={20} aria-hidden="true" /></Dialog.Close
				>
			</div>
			<Dialog.Description class="text-soft mt-1"
				>Each step of the judgement, its source and its distance to the limit.</Dialog.Description
			>
			<ol class="mt-4">
				{#each reasons as reason, i (i)}
					<li class="border-t border-rule py-3">
						<p class="font-semibold">{reason.text}</p>
						<p class="text-soft mt-1 text-[0.9rem]">{originLine(reason.origin)}</p>
						{#if reason.value !== undefined || reason.limit !== undefined}
							<dl class="mt-2 flex flex-wrap gap-x-6 font-mono text-[0.92rem]">
								{#if reason.value !== undefined}<div>
										<dt class="text-soft inline">value</dt>
										<dd class="inline">{number(reason.value)} {reason.unit ?? ''}</dd>
									</div>{/if}
								{#if reason.limit !== undefined}<div>
										<dt class="text-soft inline">limit</dt>
										<dd class="inline">{number(reason.limit)} {reason.unit ?? ''}</dd>
									</div>{/if}
								{#if reason.margin !== undefined}<div>
										<dt class="text-soft inline">margin</dt>
										<dd class="inline">{number(reason.margin)} {reason.unit ?? ''}</dd>
									</div>{/if}
							</dl>
						{/if}
						{#if reason.inputs?.length}
							<ul class="text-soft mt-2 text-[0.9rem]">
								{#each reason.inputs as input, j (j)}
									<li>
										{input.name}:
										<span class="font-mono text-ink"
											>{typeof input.value === 'number' ? number(input.value) : input.value}
											{input.unit ?? ''}</span
										>
									</li>
								{/each}
							</ul>
						{/if}
					</li>
				{/each}
			</ol>
			{#if changesIf.length}
				<h2 class="mt-4">What would change it</h2>
				<ul class="mt-1 list-disc pl-5">
					{#each changesIf as line, i (i)}<li>{line}</li>{/each}
				</ul>
			{/if}
			{#if conditions.length}
				<h2 class="mt-4">Mind</h2>
				<ul class="mt-1 list-disc pl-5">
					{#each conditions as line, i (i)}<li>{line}</li>{/each}
				</ul>
			{/if}
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
