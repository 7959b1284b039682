<script lang="ts">
	/** One wearer on the board: what is left, when to turn, be out and be warned, and what is said of it. */
	import { alarmsOf, barAfter } from '$core/air/entry';
	import { readPressure } from '$core/units/pressure';
	import { InputError } from '$core/verdict';
	import type { BoardWearer } from './board';
	import AlarmMark from '$lib/ui/air/AlarmMark.svelte';
	import { minutesAndSeconds } from '$lib/ui/timer/clock.svelte';
	import { siteClock, siteTime } from '$lib/ui/time/moments';

	interface Props {
		wearer: BoardWearer;
		turnedAt: number | null;
		now: number;
		mayControl: boolean;
		ontell: (wearerId: string, pressure: string, corrects: boolean) => Promise<string | null>;
		onout: (wearerId: string, pressure: string) => Promise<string | null>;
	}
	let { wearer, turnedAt, now, mayControl, ontell, onout }: Props = $props();
	const { plan } = $derived(wearer);
	let typed = $state('');
	let refused = $state<string | null>(null);
	let busy = $state(false);

	const bar = $derived(barAfter(plan, now));
	const left = (at: number) => {
		const seconds = Math.ceil((at - now) / 1000);
		return seconds > 0 ? minutesAndSeconds(seconds) : `past ${minutesAndSeconds(-seconds)}`;
	};
	const alarms = $derived(alarmsOf(plan, turnedAt).filter((alarm) => alarm.at <= now));
	const worst = $derived(alarms.at(-1)?.kind ?? null);
	const [LINE, HEIGHT] = [280, 42];
	const x = (value: number) =>
		4 + ((LINE - 8) * Math.min(value, wearer.startBar)) / wearer.startBar;
	const heard = $derived(
		plan.by === 'start'
			? 'as it went in'
			: `${plan.by === 'hand' ? 'told' : 'sent'} ${siteClock(plan.at)}`
	);

	async function send(work: () => Promise<string | null>) {
		busy = true;
		refused = await work();
		busy = false;
		if (refused === null) typed = '';
	}
	const inBar = $derived.by(() => {
		try {
			const read = readPressure(typed);
			return read.entered.endsWith('bar') ? null : `${read.bar.toFixed(0)} bar`;
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			return null;
		}
	});
</script>

<li
	class="grid gap-x-6 gap-y-2 border-t border-rule py-3 md:grid-cols-[minmax(11rem,1fr)_minmax(15rem,1.4fr)] lg:grid-cols-[12rem_minmax(15rem,1fr)_12rem_16rem]"
	aria-label={wearer.wearer}
	data-wearer={wearer.id}
>
	<div>
		<p class="flex items-center gap-2 text-[1.2rem] leading-tight font-bold">
			{#if worst}<AlarmMark kind={worst} size={22} />{/if}{wearer.wearer}
		</p>
		<p class="text-soft text-[0.9rem]">
			{#if wearer.set}<a class="tag" href="/items/{wearer.set}">{wearer.set}</a>{/if}
			{plan.waterVolumeL} L{wearer.channel ? `, sends as ${wearer.channel}` : ', told by hand'}
		</p>
		<p class="text-[0.9rem]">
			<span class="font-mono font-semibold">{Math.round(plan.lPerMin)}</span> L/min
			<span class="text-soft">{plan.measured ? 'measured' : 'expected'}</span>
		</p>
	</div>
	<div>
		<p class="font-mono leading-none">
			<span class="text-[2.2rem] font-semibold">{Math.round(bar)}</span>
			<span class="font-sans">bar by now</span>
			<span class="text-soft ml-2 font-sans">{Math.round(plan.bar)} {heard}</span>
		</p>
		<svg
			viewBox="0 0 {LINE} {HEIGHT}"
			class="mt-2 block h-auto w-full max-w-[24rem]"
			role="img"
			aria-label="Air of {wearer.wearer}: about {Math.round(bar)} bar, turns at {Math.round(
				plan.turnBar
			)}, warned at {Math.round(wearer.warningBar)}"
		>
			<path d="M4 14H{LINE - 4}" stroke="var(--rule)" stroke-width="12" />
			<path
				d="M4 14H{x(bar)}"
				stroke={worst === 'warning' || worst === 'be out' ? 'var(--held)' : 'var(--accent)'}
				stroke-width="12"
			/>
			<path d="M{x(wearer.warningBar)} 4v20" stroke="var(--held)" stroke-width="2.4" />
			{#if turnedAt === null}<path
					d="M{x(plan.turnBar)} 4v20"
					stroke="var(--ink)"
					stroke-width="2.4"
					stroke-dasharray="4 2"
				/>
				<text
					x={x(plan.turnBar)}
					y="38"
					font-size="14"
					text-anchor={x(plan.turnBar) > LINE * 0.86 ? 'end' : 'middle'}
					fill="var(--ink)">turn {Math.round(plan.turnBar)}</text
				>{/if}
			<text x={x(wearer.warningBar)} y="38" font-size="14" text-anchor="middle" fill="var(--ink)"
				>{Math.round(wearer.warningBar)}</text
			>
		</svg>
	</div>
	<dl class="grid grid-cols-[auto_1fr] content-start gap-x-3 font-mono whitespace-nowrap">
		{#if turnedAt === null}<dt class="font-sans">Turn in</dt>
			<dd class="text-right text-[1.15rem] font-semibold">{left(plan.turnAt)}</dd>{/if}
		<dt class="font-sans">Be out in</dt>
		<dd class="text-right text-[1.15rem] font-semibold">{left(plan.outBy)}</dd>
		<dt class="font-sans">Warning in</dt>
		<dd class="text-right">{left(plan.warnAt)}</dd>
	</dl>
	{#if wearer.endedAt}
		<p class="font-semibold">
			Out {siteTime(wearer.endedAt)} with {Math.round(wearer.endBar ?? 0)} bar{wearer.usedLPerMin
				? `, ${Math.round(wearer.usedLPerMin)} L/min`
				: ''}
		</p>
	{:else if mayControl}
		<form
			class="flex flex-wrap items-end gap-2 self-start"
			onsubmit={(event) => {
				event.preventDefault();
				void send(() => ontell(wearer.id, typed, false));
			}}
		>
			<div>
				<label class="label" for="told-{wearer.id}">Gauge, bar</label>
				<input
					id="told-{wearer.id}"
					bind:value={typed}
					autocomplete="off"
					inputmode="decimal"
					class="w-24 font-mono"
					aria-describedby={refused ? `why-${wearer.id}` : undefined}
					aria-invalid={refused ? 'true' : undefined}
				/>
			</div>
			<button class="button px-3!" disabled={busy}>Told</button>
			<button
				type="button"
				class="button px-3!"
				disabled={busy}
				onclick={() => void send(() => onout(wearer.id, typed))}>Out</button
			>
			{#if inBar}<span class="text-soft w-full text-[0.9rem]">{inBar}</span>{/if}
			{#if refused}<div id="why-{wearer.id}" role="alert" class="w-full max-w-[17rem]">
					<p class="font-semibold text-held">{refused}</p>
					<button
						type="button"
						class="linkish min-h-11 text-left"
						onclick={() => void send(() => ontell(wearer.id, typed, true))}
						>The one before was wrong: take this</button
					>
				</div>{/if}
		</form>
	{/if}
</li>
