<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { format } from 'date-fns';
	import { airwayOf, stationOf } from '$core/data/families';
	import { rejectCode } from '$core/data/reject-codes';
	import { judgeReading, readingText, type Readings } from '$core/inspection/reading';
	import { nextStep, runState, type AnswerValue } from '$core/inspection/run';
	import { ZONE_NAMES } from '$core/airway/airway';
	import Airway from '$lib/ui/airway/Airway.svelte';
	import { marksOfAnswers } from '$lib/ui/airway/item-marks';
	import Notice from '$lib/ui/form/Notice.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { outbox } from '$lib/ui/shell/outbox.svelte';
	import { recall, remember } from '$lib/ui/shell/store';
	import { serverClock } from '$lib/ui/timer/clock.svelte';
	import AnswerBar from './AnswerBar.svelte';
	import Photos from './Photos.svelte';
	import SignedRun from './SignedRun.svelte';
	import ReadingStep from './ReadingStep.svelte';

	let { data, form } = $props();
	type Kept = (typeof data.answers)[number];

	let fromServer = $state.raw<Kept[]>(untrack(() => data.answers));
	let refused = $state<string | null>(null);
	let choosing = $state(false);
	let noting = $state(false);
	let note = $state('');
	let noteField: HTMLTextAreaElement | undefined = $state();

	const procedure = $derived(data.procedure);
	const airway = $derived(airwayOf(data.item.family));
	/** What waits on this device counts as answered; the server's answers come first. */
	const mine = $derived(outbox.waiting.filter((p) => p.about === data.run.id));
	const signing = $derived(mine.some((p) => p.last));
	const events = $derived([
		...fromServer,
		...mine
			.filter((p) => 'value' in p.body)
			.map(({ body }) => ({
				step: String(body.step),
				value: body.value as AnswerValue,
				code: (body.code as string | null) ?? null,
				note: (body.note as string | null) ?? null,
				readings: (body.readings as Readings | null) ?? null,
				position: 0,
				severity: body.code ? rejectCode(String(body.code)).severity : null
			}))
	]);
	const run = $derived(runState(procedure, events));
	const standing = $derived(new Map([...run.answers].map(([k, a]) => [k, a as Kept])));
	const marks = $derived(marksOfAnswers(procedure, standing));
	const signed = $derived(data.run.signedAt !== null);
	/** What this device kept is here: from now on answers go to the right step. */
	let taken = $state(false);
	/** Keys that were pressed before that. */
	const early: KeyboardEvent[] = [];
	const active = $derived(taken && !signed && !signing && data.mayInspect);
	const donning = $derived(data.run.purpose === 'donning');

	let stepKey = $state<string | null>(
		untrack(
			() => nextStep(data.procedure, runState(data.procedure, data.answers), null)?.key ?? null
		)
	);
	const step = $derived(procedure.steps.find((s) => s.key === stepKey) ?? null);
	const station = $derived(step ? stationOf(data.item.family, step.station) : null);
	const answered = $derived(step ? standing.get(step.key) : undefined);
	const before = $derived(data.last?.answers.findLast((a) => a.step === step?.key));
	const found = $derived([...standing.values()].filter((a) => a.value === 'reject'));

	/** For someone else than the person who started the list. */
	const forAnother = $derived(Boolean(step?.secondPerson) && data.actor?.id === data.run.startedBy);
	const makerSays = $derived(data.makerLines.filter((line) => line.station === step?.station));

	$effect(() =>
		outbox.listen(
			(parcel, result) => {
				if (parcel.about !== data.run.id) return;
				const taken = result as { answers?: Kept[] };
				if (taken.answers) {
					fromServer = taken.answers;
					void remember(data.run.id, fromServer);
				} else void invalidateAll();
			},
			({ about }) => {
				if (about !== data.run.id) return;
				void invalidateAll().then(() => (fromServer = data.answers));
			}
		)
	);
	onMount(() => {
		// A page that was taken from the device may be older than what this device saw the server keep.
		const take = async () => {
			const known = await recall<Kept[]>(data.run.id);
			if ((known?.at(-1)?.position ?? 0) > (fromServer.at(-1)?.position ?? 0))
				fromServer = known ?? [];
			ownHold = (await recall<Hold>(`hold:${data.run.id}`)) ?? null;
			await outbox.awake;
			stepKey = nextStep(procedure, run, null)?.key ?? null;
		};
		void take()
			.catch(() => undefined)
			.finally(() => {
				taken = true;
				early.splice(0).forEach(keys);
			});
	});

	/** A hold that this device timed because the server could not be reached. */
	interface Hold {
		step: string;
		startReading: number;
		seconds: number;
		startedAt: Date;
	}
	let ownHold = $state<Hold | null>(null);
	const timer = $derived(
		data.timers.find((t) => t.step === stepKey) ?? (ownHold?.step === stepKey ? ownHold : null)
	);

	/** A reading answers its step; the server judges it again, with the time on its own clock. */
	function read(readings: Readings) {
		if (!step) return;
		const judged = judgeReading(step, readings, data);
		give(judged.value, judged.code, readings);
		if (step.reading?.kind === 'hold') void remember(`hold:${data.run.id}`, (ownHold = null));
	}
	async function startHold(start: number) {
		refused = null;
		const response = await fetch(`/api/runs/${data.run.id}/timer`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ id: crypto.randomUUID(), step: step?.key, start })
		}).catch(() => null);
		if (!response || response.status >= 500) {
			ownHold = {
				step: step?.key ?? '',
				startReading: start,
				seconds: step?.reading?.seconds ?? 60,
				startedAt: new Date(serverClock.now)
			};
			await remember(`hold:${data.run.id}`, $state.snapshot(ownHold));
			return;
		}
		if (!response.ok) refused = ((await response.json()) as { message: string }).message;
		await invalidateAll();
	}
	function give(value: AnswerValue, code: string | null = null, readings: Readings | null = null) {
		if (!step || !active) return;
		if (forAnother && value !== 'cleared') return;
		refused = null;
		outbox.put({
			id: crypto.randomUUID(),
			about: data.run.id,
			name: data.item.tag,
			url: `/api/runs/${data.run.id}/answers`,
			body: {
				id: crypto.randomUUID(),
				step: step.key,
				value,
				code,
				note: note.trim() || null,
				readings,
				seen: fromServer.at(-1)?.position ?? 0
			}
		});
		choosing = noting = false;
		note = '';
		if (value !== 'cleared')
			stepKey = nextStep(procedure, runState(procedure, events), step.key)?.key ?? null;
	}
	function startNote() {
		noting = true;
		setTimeout(() => noteField?.focus());
	}
	function move(by: number) {
		const at = procedure.steps.findIndex((s) => s.key === stepKey);
		const to =
			procedure.steps[
				(Math.max(at, by < 0 ? 0 : -1) + by + procedure.steps.length) % procedure.steps.length
			];
		stepKey = to?.key ?? null;
		choosing = false;
	}
	function undo() {
		const last = events.findLast((e) => standing.get(e.step) && e.value !== 'cleared');
		const target = answered ? step?.key : last?.step;
		if (!target) return;
		stepKey = target;
		give('cleared');
	}
	/** The signature goes after the answers; without a connection it waits with them on this device. */
	async function sign() {
		if (signing || !run.complete) return;
		refused = null;
		outbox.put({
			id: crypto.randomUUID(),
			about: data.run.id,
			name: data.item.tag,
			url: `/api/runs/${data.run.id}/sign`,
			body: {},
			last: true
		});
	}
	function keys(event: KeyboardEvent) {
		const target = event.target as HTMLElement;
		if (!taken) return void early.push(event);
		if (!active || event.ctrlKey || event.metaKey || event.altKey) return;
		if (target.closest('input, select, [role=dialog]')) return;
		if (target.closest('textarea')) {
			if (event.key === 'Escape') noting = false;
			return;
		}
		const { key } = event;
		const nth = Number(key) - 1;
		if (choosing && key === 'Escape') choosing = false;
		else if (choosing && step?.rejects[nth]) give('reject', step.rejects[nth]);
		else if (!choosing && key === '1' && !step?.reading) give('good');
		else if (!choosing && key === '2' && step) choosing = true;
		else if (!choosing && key === '3' && step?.ifFitted) give('not fitted');
		else if (key === 'ArrowRight' || key === 'ArrowDown') move(1);
		else if (key === 'ArrowLeft' || key === 'ArrowUp') move(-1);
		else if (key.toLowerCase() === 'n' && step) {
			startNote();
		} else if (key.toLowerCase() === 'u') undo();
		else if (key === 'Enter' && !target.closest('a, button')) {
			if (run.complete && !step) void sign();
			else if (answered || !step) stepKey = nextStep(procedure, run, stepKey)?.key ?? null;
		} else return;
		event.preventDefault();
	}
	const keepLine = $derived(
		mine.length ? `${mine.length} kept on this device, not yet on the server` : 'every answer kept'
	);
</script>

<svelte:head
	><title>{data.item.tag}, {donning ? 'putting on' : 'inspection'} · Grevan</title></svelte:head
>
<svelte:window onkeydown={keys} />
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<a
		class="tag rounded border-[1.5px] border-ink bg-sheet px-2 text-[1.45rem] no-underline"
		href="/items/{data.item.tag}">{data.item.tag}</a
	>
	<h1>{procedure.name}</h1>
	<p class="text-soft">{data.model} · size {data.item.size} · {data.place}</p>
	<p class="text-soft ml-auto" role="status">
		{run.done} of {run.total} · {signed ? 'signed' : keepLine}
	</p>
</div>
<div class="flex flex-col">
	<div class="mt-3 max-md:order-last max-md:pb-48">
		<Airway
			stations={airway.stations}
			{marks}
			label="Airway, with the state of each station"
			current={step?.station ?? null}
			onchoose={active
				? (key) => {
						stepKey =
							procedure.steps.find((s) => s.station === key && !standing.has(s.key))?.key ??
							procedure.steps.find((s) => s.station === key)?.key ??
							null;
						choosing = false;
					}
				: undefined}
		/>
	</div>
	{#if refused}<div class="my-3"><Notice kind="fault"><p>{refused}</p></Notice></div>{/if}
	{#if signing && outbox.link !== 'live'}<div class="my-3">
			<Notice kind="caution"
				><p>
					Signed on this device, not yet on the server: {mine.length} unsent. It is sent by itself when
					the link is back; until then {data.item.tag} stands as it did.
				</p></Notice
			>
		</div>{/if}
	{#if data.withdrawnOn && !signed}<div class="my-3">
			<Notice kind="caution"
				><p>
					{data.model} was withdrawn: {data.withdrawnWhy} The inspection can be finished and is kept;
					it passes nothing.
				</p></Notice
			>
		</div>{/if}
	{#if data.run.supersedeReason && !signed}<p class="text-soft my-2">
			Takes the place of <a class="linkish" href="/runs/{data.run.supersedes}">a signed one</a>: {data
				.run.supersedeReason}
		</p>{/if}
	{#if !data.mayInspect && !signed}<div class="my-3">
			<Notice><p>You may look at this inspection; a technician answers and signs it.</p></Notice>
		</div>{/if}

	{#if signed && data.now}
		<SignedRun {data} now={data.now} fault={form?.fault ?? null} />
	{:else}
		<div class="mt-2 grid gap-8 md:pb-40 lg:grid-cols-[minmax(0,1fr)_18rem] lg:pb-0">
			<section aria-labelledby="step" class="min-h-[19rem]">
				{#if step && station}
					<p class="text-soft">
						Step {procedure.steps.indexOf(step) + 1} · {ZONE_NAMES[station.zone]}
					</p>
					<h2 id="step" class="text-[2rem]! leading-tight text-ink!" aria-live="polite">
						{step.title}
					</h2>
					<p class="mt-1 max-w-[40rem] text-[1.2rem]">{step.action}</p>
					{#each makerSays as line (line.text)}<p class="mt-1 max-w-[40rem]">
							<b>Maker:</b>
							{line.text}
						</p>{/each}
					{#if forAnother && active}<div class="mt-3 max-w-[40rem]">
							<Notice kind="caution"
								><p>
									A second person looks and answers this, under their own name: on their device, or
									signed in here after you. The list goes on where it stands.
								</p></Notice
							>
						</div>{/if}
					{#if step.reading && active}
						{#key step.key}<ReadingStep
								{step}
								ratedBar={data.ratedBar}
								{timer}
								bench={data.hasBench ? `/api/runs/${data.run.id}/gauge` : null}
								tag={data.item.tag}
								holdDropBar={data.holdDropBar}
								answered={answered?.readings ?? null}
								onread={read}
								onstart={startHold}
							/>{/key}
					{/if}
					<div class="mt-4 grid gap-6 md:grid-cols-2">
						<div>
							<h2>Good looks like</h2>
							<p class="text-[1.05rem]">{step.good}</p>
							<h2 class="mt-3">Last time here</h2>
							<p>
								{#if before}{before.readings
										? `${readingText(before.readings)}, `
										: ''}{before.value}{before.code ? `, ${before.code}` : ''} · {data.last
										?.signedAt
										? format(data.last.signedAt, 'd MMM yyyy')
										: ''} · {data.last?.by}{:else}nothing on record{/if}
							</p>
							<h2 class="mt-3">Why</h2>
							<p class="text-soft">{step.why}</p>
						</div>
						<div>
							<h2 id="codes">{choosing ? 'Which? Press its number' : 'Reject if'}</h2>
							<ul aria-labelledby="codes">
								{#each step.rejects as code, i (code)}
									<li class="border-t border-rule">
										{#if choosing}
											<button
												type="button"
												class="flex min-h-11 w-full cursor-pointer items-center gap-3 text-left hover:bg-heldtint"
												onclick={() => give('reject', code)}
											>
												<kbd>{i + 1}</kbd><span class="tag w-16">{code}</span><span
													>{rejectCode(code).name}</span
												><span class="text-soft ml-auto text-[0.88rem]"
													>{rejectCode(code).severity}</span
												>
											</button>
										{:else}
											<div class="flex items-baseline gap-3 py-1">
												<span class="tag w-16">{code}</span><span>{rejectCode(code).name}</span>
											</div>
										{/if}
									</li>
								{/each}
							</ul>
							{#if choosing}<button
									type="button"
									class="linkish mt-2 min-h-11"
									onclick={() => (choosing = false)}>None of these <kbd>Esc</kbd></button
								>{/if}
						</div>
					</div>
					<Photos
						run={data.run.id}
						tag={data.item.tag}
						step={step.key}
						photos={data.photos.filter((p) => p.step === step?.key)}
						{active}
					/>
					{#if noting || note}
						<label class="label mt-3" for="note">Note for this step</label>
						<textarea
							id="note"
							bind:this={noteField}
							bind:value={note}
							maxlength="500"
							rows="2"
							class="w-full max-w-[40rem]"
						></textarea>
					{/if}
				{:else if run.complete}
					<p class="text-soft">All {run.total} steps have an answer</p>
					<h2 id="step" class="text-[2rem]! leading-tight text-ink!">
						{signing
							? 'Signed here'
							: run.worst === 'stop' || run.worst === 'repair'
								? 'Sign: it stays held'
								: donning
									? 'Sign the list'
									: 'Sign the inspection'}
					</h2>
					<p class="mt-1 max-w-[40rem] text-[1.1rem]">
						With your name, under your account. After signing nothing in it can be changed; go back
						along the line first if something was missed.
					</p>
				{:else}
					<h2 id="step" class="text-[1.6rem]! text-ink!">{run.left.length} steps left</h2>
				{/if}
			</section>
			<aside aria-label="So far" class="border-rule lg:border-l lg:pl-5">
				<h2>Found so far</h2>
				{#if found.length === 0}<p class="text-soft mt-1">Nothing that holds it.</p>{/if}
				<ul class="mt-1">
					{#each found as reject (reject.step)}
						<li class="flex items-baseline gap-2 py-1">
							<StateMark
								state={reject.severity === 'watch' || reject.severity === 'note'
									? 'watch'
									: 'reject'}
							/><span
								><b class="tag">{reject.code}</b>
								{procedure.steps.find((s) => s.key === reject.step)?.title.toLowerCase()}. {reject.severity ===
									'stop' || reject.severity === 'repair'
									? 'Held from now on.'
									: 'Usable.'}</span
							>
						</li>
					{/each}
				</ul>
				{#if answered}<h2 class="mt-4">Answered here</h2>
					<p>
						{answered.readings
							? `${readingText(answered.readings)}: `
							: ''}{answered.value}{answered.code ? `, ${answered.code}` : ''}{answered.note
							? `: ${answered.note}`
							: ''}
					</p>{/if}
				<p class="text-soft mt-4 text-[0.88rem]">
					Started {format(data.run.startedAt, 'd MMM HH:mm')} by {data.startedBy}. Goes on from any
					device.
				</p>
			</aside>
		</div>
		{#if active}
			<AnswerBar
				{step}
				ready={run.complete && !step}
				done={run.done}
				{choosing}
				blocked={forAnother}
				onsign={sign}
				ongood={() => give('good')}
				onreject={() => (choosing = !choosing)}
				onabsent={() => give('not fitted')}
				onnote={startNote}
				onundo={undo}
			/>
		{/if}
	{/if}
</div>
