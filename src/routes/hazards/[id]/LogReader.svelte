<script lang="ts">
	/** Reads a gas monitor's log: the readings against their limits, and what of them enters the plan. */
	import { decodeText } from '$core/csv/decode';
	import type { SubstanceLibrary } from '$core/data/substances';
	import {
		CHANNELS,
		readMonitorLog,
		summariseLog,
		type Channel,
		type ChannelSummary,
		type LogSummary,
		type MonitorReading
	} from '$core/hazards/monitor-log';
	import { publishedLimit, type HazardFacts } from '$core/hazards/facts';
	import { InputError } from '$core/verdict';
	import { readableNumber } from '$core/units/number';
	import Chart from '$lib/ui/chart/Chart.svelte';
	import { line } from '$lib/ui/chart/parts';
	import { siteTime, siteZone } from '$lib/ui/time/moments';
	import { dayAt } from '$core/plan/moments';

	interface Props {
		facts: HazardFacts;
		library: SubstanceLibrary;
	}
	let { facts = $bindable(), library }: Props = $props();
	let readings = $state.raw<MonitorReading[]>([]);
	let summary = $state.raw<LogSummary | null>(null);
	let message = $state<string | null>(null);
	let taken = $state<string | null>(null);
	/** The contaminant that the organic vapour sensor stood for. */
	let vocFor = $state('');
	/** What each channel measures, as the library has it. */
	const SUBSTANCES: Partial<Record<Channel, string>> = {
		coPpm: 'carbon-monoxide',
		h2sPpm: 'hydrogen-sulphide'
	};
	const vapours = $derived(facts.contaminants.filter((c) => c.form === 'vapour'));
	const short = (value: number) => readableNumber(value, 3);

	async function read(bytes: Uint8Array) {
		message = null;
		taken = null;
		try {
			readings = readMonitorLog(decodeText(bytes).text);
			summary = summariseLog(readings);
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			message = error.message;
			summary = null;
		}
	}
	async function choose(event: Event & { currentTarget: HTMLInputElement }) {
		const file = event.currentTarget.files?.[0];
		if (file) await read(new Uint8Array(await file.arrayBuffer()));
	}
	async function simulated(scenario: string) {
		const response = await fetch(`/instruments/gas-monitor?scenario=${scenario}`);
		await read(new Uint8Array(await response.arrayBuffer()));
	}
	const limitFor = (channel: Channel) => {
		const key = channel === 'vocPpm' ? vocFor : SUBSTANCES[channel];
		return key ? publishedLimit(library.find(key), facts.ruleSet) : undefined;
	};
	/** Oxygen and explosive gas count by their worst reading, contaminants by mean and worst quarter of an hour. */
	function takeIn() {
		if (!summary) return;
		const said: string[] = [];
		for (const channel of summary.channels) {
			if (channel.channel === 'oxygenPercent') {
				facts.oxygenPercent = channel.lowest;
				said.push(`oxygen ${short(channel.lowest)} % (lowest)`);
			} else if (channel.channel === 'lelPercent') {
				facts.lelReadingPercent = channel.highest;
				said.push(`explosive gas ${short(channel.highest)} % LEL (highest)`);
			} else takeContaminant(channel, said);
		}
		taken = said.join(', ');
	}
	function takeContaminant(channel: ChannelSummary, said: string[]) {
		const key = channel.channel === 'vocPpm' ? vocFor : SUBSTANCES[channel.channel];
		const substance = key ? library.find(key) : undefined;
		if (!substance) return;
		const round = (value: number) => Number(value.toPrecision(3));
		const amounts = {
			concentration: { value: round(channel.mean), unit: 'ppm' as const },
			peak: { value: round(channel.highest15Min), unit: 'ppm' as const },
			measurements: null,
			basis: 'measured' as const,
			measuredOn: dayAt(summary?.from ?? 0, siteZone())
		};
		const held = facts.contaminants.find((c) => c.substance === substance.key);
		if (held) Object.assign(held, amounts);
		else
			facts.contaminants.push({
				substance: substance.key,
				name: substance.name,
				form: substance.form,
				...amounts
			});
		said.push(
			`${substance.name} ${short(channel.mean)} ppm, worst 15 min ${short(channel.highest15Min)}`
		);
	}
</script>

<details class="mt-5">
	<summary class="min-h-11 cursor-pointer content-center font-semibold"
		>Read a gas monitor’s log</summary
	>
	<div class="mt-1 grid gap-3">
		<label
			><span class="label">CSV file of the monitor</span><input
				type="file"
				accept=".csv,text/csv,text/plain"
				class="w-full py-2"
				onchange={choose}
			/></label
		>
		<p class="text-soft text-[0.93rem]">
			Or the simulated monitor:
			{#each ['tank', 'dryer', 'shed'] as scenario (scenario)}<button
					type="button"
					class="linkish mr-3 inline-flex min-h-11 items-center"
					onclick={() => simulated(scenario)}>{scenario}</button
				>{/each}
			<a class="linkish" href="/instruments/gas-monitor?scenario=tank" download>its log as a file</a
			>
		</p>
		{#if message}<p class="font-semibold text-held" role="alert">{message}</p>{/if}
		{#if summary}
			{@const log = summary}
			<p>
				{siteTime(log.from)} to {siteTime(log.to)}, {readings.length} readings{log.gaps.length
					? `, ${log.gaps.length} gaps in which nothing is known`
					: ''}.
			</p>
			{#if vapours.length}<label
					><span class="label">The organic vapour sensor stood for</span><select bind:value={vocFor}
						><option value="">none of them</option
						>{#each vapours as c, i (i)}{#if c.substance}<option value={c.substance}
									>{c.name}</option
								>{/if}{/each}</select
					></label
				>{/if}
			{#each log.channels as channel (channel.channel)}
				{@const about = CHANNELS[channel.channel]}
				{@const limit = limitFor(channel.channel)}
				<div>
					<p>
						<b>{about.name}</b>: mean {short(channel.mean)}, worst 15 min {short(
							channel.highest15Min
						)}, {channel.channel === 'oxygenPercent'
							? `lowest ${short(channel.lowest)}`
							: `highest ${short(channel.highest)}`}
						{about.unit}{limit ? `; limit ${limit.value}` : ''}
					</p>
					<Chart
						height={110}
						label="{about.name} over the log, {about.unit}"
						config={(c) => ({
							type: 'line',
							data: {
								datasets: [
									line(
										'',
										readings.flatMap((r) => {
											const y = r[channel.channel];
											return y === undefined ? [] : [{ x: (r.at - log.from) / 60_000, y }];
										}),
										c.accent,
										{ width: 1.5 }
									),
									...(limit && limit.unit === 'ppm'
										? [
												line(
													'',
													[
														{ x: 0, y: limit.value },
														{ x: log.minutes, y: limit.value }
													],
													c.held,
													{ width: 1.5, dash: [6, 4] }
												)
											]
										: [])
								]
							},
							options: {
								plugins: { legend: { display: false } },
								scales: {
									x: {
										type: 'linear',
										max: log.minutes,
										grid: { color: c.rule },
										ticks: { callback: (m) => `${m} min` }
									},
									y: { grid: { color: c.rule }, grace: '10%' }
								}
							}
						})}
					/>
				</div>
			{/each}
			<button type="button" class="button" onclick={takeIn}>Take these into the plan</button>
			{#if taken}<p role="status" class="font-semibold">Taken: {taken}.</p>{/if}
		{/if}
	</div>
</details>
