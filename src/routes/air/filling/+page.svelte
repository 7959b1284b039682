<script lang="ts">
	/** The fill room: empties, the look at each, the panel with its banks, what was filled. */
	import { onMount, untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import type { FillTarget } from '$core/air/settle';
	import { freshId } from '$lib/fresh-id';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import { sendAction } from '$lib/ui/form/send';
	import Notice from '$lib/ui/form/Notice.svelte';
	import ScanForm from '$lib/ui/form/ScanForm.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { SOURCE_MARKS } from '$lib/ui/air/marks';
	import Banks from './Banks.svelte';
	import Look from './Look.svelte';
	import Running from './Running.svelte';
	import PaperLink from '$lib/ui/records/PaperLink.svelte';
	import { siteMoment } from '$lib/ui/time/moments';

	let { data } = $props();
	let reading = $state.raw(untrack(() => data.panel.reading));
	let target = $state.raw<FillTarget | null>(null);
	let points = $state.raw<{ s: number; bar: number; c: number }[]>([]);
	let heard = $state(true);
	let chosen = $state<string | null>(null);
	let busy = $state(false);
	let refusal = $state<{ message: string } | null>(null);
	let said = $state('');
	let sourceId = $state(untrack(() => data.sources[0]?.source.id ?? ''));

	const source = $derived(data.sources.find((s) => s.source.id === sourceId) ?? data.sources[0]);
	const queue = $derived(data.queue.rows.filter((row) => row.tag !== data.open?.tag));
	const pressure = (row: (typeof queue)[number]) => row.cylinder?.pressureBar ?? Infinity;
	/** What may be filled, the emptiest first: what a bank could not bring up waits for the pump. */
	const fillable = $derived(
		queue.filter((row) => row.mayFill?.outcome === 'may').sort((a, b) => pressure(a) - pressure(b))
	);
	/** What was chosen, else the first that may be filled. */
	const looking = $derived(queue.find((row) => row.tag === chosen) ?? fillable[0] ?? null);
	const banks = $derived(
		(reading?.banksBar ?? []).map((bar, i) => ({
			...(source?.source.banks[i] ?? { waterVolumeL: 50, fullBar: 300 }),
			bar
		}))
	);
	/** The emptiest of the queue: how far the banks go is counted with it. */
	const usual = $derived.by(() => {
		const like = fillable[0]?.cylinder ?? null;
		return {
			waterVolumeL: like?.waterVolumeL ?? 6.8,
			pressureBar: like?.pressureBar ?? 50,
			ratedBar: like?.ratedBar ?? 300
		};
	});

	interface Said {
		reading: typeof reading;
		target: FillTarget | null;
		points: typeof points;
		first: number;
		fillId: string | null;
	}
	onMount(() => {
		if (!data.connected) return;
		const events = new EventSource('/api/fill/events');
		events.onmessage = (event) => {
			heard = true;
			const now = JSON.parse(String(event.data)) as Said;
			reading = now.reading;
			target = now.target;
			points = now.first === 0 ? now.points : [...points, ...now.points];
			// Another screen began or ended a fill.
			if (now.fillId !== (data.open?.fill.id ?? null) && !busy) void invalidateAll();
		};
		events.onerror = () => (heard = false);
		return () => events.close();
	});

	/** @returns what came of it; undefined where it was refused */
	async function send(action: string, fields: Record<string, string>): Promise<unknown> {
		busy = true;
		const sent = await sendAction<{ result: unknown }>(`?/${action}`, fields);
		refusal = sent.refused;
		if (!sent.refused) await invalidateAll();
		busy = false;
		return sent.refused ? undefined : (sent.data?.result ?? true);
	}
	async function begin(tag: string) {
		said = '';
		const ok = await send('start', {
			id: freshId(),
			tag,
			looked: 'yes',
			sourceId: source?.source.id ?? ''
		});
		if (ok !== undefined) chosen = null;
	}
	async function finish(hand: { bar: string; celsius: string } | null) {
		const tag = data.open?.tag ?? '';
		const done = (await send('finish', {
			id: data.open?.fill.id ?? '',
			...(hand ? { ...hand, byHand: 'yes' } : {})
		})) as { filled: { outcome: string; settledBar: number } } | undefined;
		if (!done) return;
		const bar = Math.round(done.filled.settledBar);
		said =
			done.filled.outcome === 'full'
				? `${tag} is full: ${bar} bar when cool. It goes on the rack.`
				: `${tag} is short: ${bar} bar when cool, below nine tenths. It stays in the queue; pump up a bank.`;
		points = [];
	}
</script>

<svelte:head><title>Fill room · Grevan</title></svelte:head>
<div class="mt-4 flex flex-wrap items-center gap-x-4 gap-y-2">
	{#if data.sources.length > 1}<label class="flex items-center gap-2"
			><span class="font-semibold">Air from</span><select bind:value={sourceId}
				>{#each data.sources as { source: one } (one.id)}<option value={one.id}>{one.name}</option
					>{/each}</select
			></label
		>{:else if source}<b>{source.source.name}</b>{/if}
	{#if source}
		<span class="inline-flex items-center gap-2"
			><StateMark state={SOURCE_MARKS[source.state.outcome]} /><a
				class="linkish"
				href="/air/tests/{source.source.id}">{source.state.reasons[0]?.text}</a
			></span
		>
	{:else}<p>
			No source of air fills cylinders yet. Add one under <a class="linkish" href="/air/tests"
				>Air tests</a
			>.
		</p>{/if}
	{#if data.batches[0] && !data.batches[0].batch.closedAt}<span class="text-soft"
			>Batch {data.batches[0].batch.number}, {data.batches[0].fills} filled</span
		>{/if}
	<span class="text-soft ml-auto"
		>{data.connected
			? heard
				? data.panel.says
				: 'The panel is not heard; trying again'
			: 'No panel: fills are written down by hand'}</span
	>
</div>
<div class="mt-4 grid grid-cols-[minmax(0,1fr)] gap-8 lg:grid-cols-[21rem_minmax(0,1fr)]">
	<section aria-labelledby="queue" class="grid content-start gap-3">
		<h2 id="queue">To be filled, {queue.length}</h2>
		{#if data.mayFill}<ScanForm
				action="?/queue"
				field="empty"
				label="Another empty"
				button="In"
				placeholder="scan"
			/>{/if}
		{#if queue.length === 0}<p>Nothing waits. Scan an empty cylinder to put it here.</p>{/if}
		<ul>
			{#each queue as row (row.id)}
				<li class="rowline">
					<button
						type="button"
						class="flex min-h-12 w-full flex-wrap items-center gap-x-3 py-1 text-left hover:bg-tint {looking?.tag ===
						row.tag
							? 'bg-tint font-bold'
							: ''}"
						aria-pressed={looking?.tag === row.tag}
						onclick={() => (chosen = row.tag)}
					>
						<StateMark state={row.mayFill?.outcome === 'may' ? 'good' : 'held'} />
						<span class="tag">{row.tag}</span>
						<span class="font-mono"
							>{row.cylinder?.pressureBar === null || row.cylinder === null
								? '?'
								: `${Math.round(row.cylinder.pressureBar)} bar`}</span
						>
						{#if row.mayFill?.outcome !== 'may'}<span class="w-full pl-8 text-[0.92rem]"
								>{row.mayFill?.reasons[0]?.text ?? 'Its stamp is not on record.'}</span
							>{/if}
					</button>
				</li>
			{/each}
		</ul>
	</section>
	<div class="grid grid-cols-[minmax(0,1fr)] content-start gap-6">
		{#if said}<div role="status"><Notice kind="plain"><p>{said}</p></Notice></div>{/if}
		<FormRefusal {refusal} />
		<div class="grid grid-cols-[minmax(0,1fr)] gap-6 xl:grid-cols-[minmax(0,1fr)_17rem]">
			<div>
				{#if data.open}
					<Running
						tag={data.open.tag}
						source={data.open.source.name}
						startBar={data.open.fill.startBar}
						ratedBar={data.open.cylinder.ratedBar}
						reading={data.connected && heard ? reading : null}
						{target}
						{points}
						{busy}
						onbank={(bank) =>
							void send('bank', { fillId: data.open?.fill.id ?? '', bank: String(bank) })}
						onfinish={(hand) => void finish(hand)}
					/>
				{:else if looking}
					{#key looking.tag}<Look
							tag={looking.tag}
							verdict={looking.mayFill}
							steps={data.steps}
							{busy}
							ongood={() => void begin(looking.tag)}
							onreject={(step, code) =>
								void send('reject', { id: freshId(), tag: looking.tag, step, code })}
							onback={() => void send('unqueue', { tag: looking.tag })}
						/>{/key}
				{:else}
					<p class="text-[1.1rem]">
						{queue.length
							? 'None of the queue may be filled. Choose one to see why.'
							: 'Nothing on the panel.'}
					</p>
				{/if}
			</div>
			{#if banks.length}<Banks
					{banks}
					openBank={reading?.openBank ?? null}
					pumpedBank={reading?.pumpedBank ?? null}
					cylinder={usual}
					ratedBar={usual.ratedBar}
					onpump={data.mayFill ? (bank) => void send('pump', { bank: String(bank) }) : null}
				/>{/if}
		</div>
		<section aria-labelledby="log">
			<h2 id="log">Filled last</h2>
			{#if data.log.length === 0}<p>Nothing yet.</p>{:else}
				<div class="overflow-x-auto" tabindex="-1" role="region" aria-label="Fill log">
					<table class="w-full min-w-[40rem] text-left">
						<thead class="text-soft text-[0.88rem]"
							><tr
								><th class="pr-3 font-semibold">When</th><th class="pr-3 font-semibold">Tag</th><th
									class="pr-3 text-right font-semibold">From</th
								><th class="pr-3 text-right font-semibold">To</th><th
									class="pr-3 text-right font-semibold">°C</th
								><th class="pr-3 text-right font-semibold">Cool</th><th class="pr-3 font-semibold"
									>Batch</th
								><th class="pr-3 font-semibold">By</th><th class="font-semibold">Paper</th></tr
							></thead
						>
						<tbody>
							{#each data.log.slice(0, 12) as { fill, tag, batch, by } (fill.id)}<tr
									class="border-t border-rule"
									><td class="py-1 pr-3">{fill.endedAt ? siteMoment(fill.endedAt) : ''}</td><td
										class="pr-3"
										><a class="tag inline-flex min-h-9 items-center" href="/air/cylinders/{tag}"
											>{tag}</a
										></td
									><td class="pr-3 text-right font-mono">{Math.round(fill.startBar)}</td><td
										class="pr-3 text-right font-mono">{Math.round(fill.endBar ?? 0)}</td
									><td class="pr-3 text-right font-mono">{Math.round(fill.endC ?? 0)}</td><td
										class="pr-3 text-right font-mono font-semibold"
										>{Math.round(fill.settledBar ?? 0)}{fill.outcome === 'short'
											? ' short'
											: ''}</td
									><td class="pr-3">{batch}</td><td class="pr-3">{by}</td><td
										><PaperLink kind="fill" id={fill.id} words="PDF" /></td
									></tr
								>{/each}
						</tbody>
					</table>
				</div>
			{/if}
		</section>
		{#if data.connected && data.mayFill}
			<details class="no-print">
				<summary class="linkish min-h-11 cursor-pointer content-center text-[0.9rem]"
					>Simulated panel</summary
				>
				<form
					class="flex flex-wrap items-end gap-3"
					onsubmit={(event) => {
						event.preventDefault();
						const fields = new FormData(event.currentTarget);
						void send('simulate', {
							speed: String(fields.get('speed')),
							fault: String(fields.get('fault'))
						});
					}}
				>
					<label
						><span class="label">Times as fast</span><input
							name="speed"
							value="20"
							inputmode="numeric"
							class="w-24 font-mono"
						/></label
					>
					<label
						><span class="label">Fault</span><select name="fault"
							>{#each data.panelFaults as one (one)}<option>{one}</option>{/each}</select
						></label
					>
					<button class="button">Set</button>
				</form>
			</details>
		{/if}
	</div>
</div>
