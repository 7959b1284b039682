<script lang="ts">
	/** The banks of the panel as vessels with their levels, and what they are still good for. */
	import { bankPlan } from '$core/air/cascade';
	import { InputError } from '$core/verdict';

	interface Props {
		banks: { waterVolumeL: number; fullBar: number; bar: number }[];
		/** Which is open, which is pumped up; from 1. */
		openBank: number | null;
		pumpedBank: number | null;
		/** What a cylinder of the queue comes with. */
		cylinder: { waterVolumeL: number; pressureBar: number };
		ratedBar: number;
		onpump: ((bank: number) => void) | null;
	}
	let { banks, openBank, pumpedBank, cylinder, ratedBar, onpump }: Props = $props();
	const [WIDTH, HEIGHT] = [46, 118];
	const top = $derived(Math.max(...banks.map((bank) => bank.fullBar), 1));
	const plan = $derived.by(() => {
		try {
			return bankPlan({
				banks: banks.map(({ waterVolumeL, bar }) => ({ waterVolumeL, pressureBar: bar })),
				cylinder,
				ratedBar,
				targetBar: ratedBar,
				fullBar: top
			});
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			return null;
		}
	});
	const level = (bar: number) => (HEIGHT * Math.min(bar, top)) / top;
</script>

<section aria-labelledby="banks">
	<h2 id="banks">Banks</h2>
	<ul class="mt-2 flex flex-wrap gap-5">
		{#each banks as bank, i (i)}
			<li
				class="grid justify-items-center gap-1"
				aria-label="Bank {i + 1}: {Math.round(bank.bar)} bar"
			>
				<svg width={WIDTH} height={HEIGHT + 14} aria-hidden="true">
					<path
						d="M{WIDTH / 2 - 6} 1h12v8h-12z"
						fill={openBank === i + 1 ? 'var(--accent)' : 'var(--paper)'}
						stroke="var(--ink)"
						stroke-width="1.6"
					/>
					<rect
						x="2"
						y={10 + HEIGHT - level(bank.bar)}
						width={WIDTH - 4}
						height={level(bank.bar)}
						rx="7"
						fill={pumpedBank === i + 1 ? 'var(--due)' : 'var(--accent)'}
						opacity={openBank === i + 1 || pumpedBank === i + 1 ? 1 : 0.55}
					/>
					<rect
						x="2"
						y="10"
						width={WIDTH - 4}
						height={HEIGHT}
						rx="7"
						fill="none"
						stroke="var(--ink)"
						stroke-width="1.8"
					/>
				</svg>
				<span class="font-mono text-[1.1rem] font-semibold">{Math.round(bank.bar)}</span>
				<span class="text-soft text-[0.88rem]"
					>bank {i + 1}{openBank === i + 1
						? ', open'
						: pumpedBank === i + 1
							? ', pumping'
							: ''}</span
				>
			</li>
		{/each}
	</ul>
	{#if plan}
		<p class="mt-3" role="status">
			{#if plan.fills === 0}<b>No more to nine tenths.</b>{:else}<b
					>{plan.fills} more to nine tenths</b
				>, coming with {Math.round(cylinder.pressureBar)} bar.{/if}
			{#if plan.repump !== null}Then pump up <b>bank {plan.repump + 1}</b>.{/if}
		</p>
		{#if onpump && plan.repump !== null && pumpedBank === null}
			{@const bank = plan.repump + 1}
			<button
				type="button"
				class={['button mt-2', plan.fills === 0 && 'primary']}
				onclick={() => onpump(bank)}>Pump up bank {bank}</button
			>
		{/if}
	{/if}
</section>
