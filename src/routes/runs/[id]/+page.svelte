<script lang="ts">
	import { untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { format } from 'date-fns';
	import { airwayOf, stationOf } from '$core/data/families';
	import { rejectCode } from '$core/data/reject-codes';
	import { judgeReading, readingText, type Readings } from '$core/inspection/reading';
	import { nextStep, runState, type AnswerValue } from '$core/inspection/run';
	import { ZONE_NAMES } from '$core/airway/airway';
	import Airway from '$lib/ui/airway/Airway.svelte';
	import { marksOfAnswers } from '$lib/ui/airway/item-marks';
	import Because from '$lib/ui/because/Because.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { outbox } from '$lib/ui/shell/outbox.svelte';
	import ReadingStep from './ReadingStep.svelte';

	let { data } = $props();
	type Kept = (typeof data.answers)[number];

	let fromServer = $state<Kept[]>(untrack(() => data.answers));
	let refused = $state<string | null>(null);
	let choosing = $state(false);
	let noting = $state(false);
	let note = $state('');
	let signing = $state(false);
	let noteField: HTMLTextAreaElement | undefined = $state();

	const procedure = $derived(data.procedure);
	const airway = $derived(airwayOf(data.item.family));
	/** What waits on this device counts as answered; the server's answers come first. */
	const mine = $derived(outbox.waiting.filter((p) => p.about === data.run.id));
	const events = $derived([
		...fromServer,
		...mine.map(({ body }) => ({
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
	const active = $derived(!signed && data.mayInspect);

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

	$effect(() =>
		outbox.listen(
			(parcel, result) => {
				if (parcel.about === data.run.id) fromServer = (result as { answers: Kept[] }).answers;
			},
			({ parcel, message }) => {
				if (parcel.about !== data.run.id) return;
				refused = message;
				void invalidateAll().then(() => (fromServer = data.answers));
			}
		)
	);

	/** A reading answers its step; the server judges it again, with the time on its own clock. */
	function read(readings: Readings) {
		if (!step) return;
		const judged = judgeReading(step, readings, { ratedBar: data.ratedBar });
		give(judged.value, judged.code, readings);
	}
	async function startHold(start: number) {
		refused = null;
		const response = await fetch(`/api/runs/${data.run.id}/timer`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ id: crypto.randomUUID(), step: step?.key, start })
		}).catch(() => null);
		if (!response?.ok)
			refused = response
				? ((await response.json()) as { message: string }).message
				: 'The server does not answer: the clock was not started.';
		await invalidateAll();
	}
	function give(value: AnswerValue, code: string | null = null, readings: Readings | null = null) {
		if (!step || !active) return;
		refused = null;
		outbox.put({
			id: crypto.randomUUID(),
			about: data.run.id,
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
	async function sign() {
		if (signing || !run.complete) return;
		signing = true;
		refused = null;
		try {
			if (!(await outbox.flush()) && mine.length) {
				refused =
					'Some answers have not reached the server yet. They are kept here; sign when the link is live again.';
				return;
			}
			const response = await fetch(`/api/runs/${data.run.id}/sign`, { method: 'POST' });
			if (!response.ok) refused = ((await response.json()) as { message: string }).message;
			await invalidateAll();
		} catch {
			refused = 'The server does not answer. Nothing is lost; sign again when the link is live.';
		} finally {
			signing = false;
		}
	}
	function keys(event: KeyboardEvent) {
		const target = event.target as HTMLElement;
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
			noting = true;
			setTimeout(() => noteField?.focus());
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

<svelte:head><title>{data.item.tag}, inspection · Grevan</title></svelte:head>
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
	{#if !data.mayInspect && !signed}<div class="my-3">
			<Notice><p>You may look at this inspection; a technician answers and signs it.</p></Notice>
		</div>{/if}

	{#if signed && data.now}
		<div class="mt-4 grid gap-8 lg:grid-cols-[minmax(0,1fr)_20rem]">
			<section aria-labelledby="verdict">
				<h2 id="verdict" class="text-[1.9rem]! leading-tight text-ink!">
					{data.run.outcome === 'fail'
						? 'Failed: held'
						: data.run.outcome === 'pass'
							? 'Passed'
							: 'Passed, with something to watch'}
				</h2>
				<p class="mt-1 text-[1.1rem]">{data.run.reasons?.[0]?.text}</p>
				<p class="text-soft mt-1">
					Signed by {data.signedByName}, {data.run.signedAt
						? format(data.run.signedAt, 'd MMM yyyy HH:mm')
						: ''}. A signed inspection is never changed.
				</p>
				<Because title="{data.item.tag}: {data.run.outcome}" reasons={data.run.reasons ?? []} />
				<p class="mt-4 flex items-center gap-3">
					<span class="text-soft">Now</span>
					<StateMark state={data.now.verdict.outcome} word size={22} />
				</p>
			</section>
			<div class="grid content-start gap-2">
				{#each data.now.defects as defect (defect.id)}<a class="button" href="/faults/{defect.id}"
						>{defect.code}: {rejectCode(defect.code).name}</a
					>{/each}
				<a class="button" href="/items/{data.item.tag}">To {data.item.tag}</a>
				<a class="button" href="/items/{data.item.tag}/history">History</a>
				<a class="button" href="/">To today</a>
			</div>
		</div>
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
					{#if step.reading && active}
						{#key step.key}<ReadingStep
								{step}
								ratedBar={data.ratedBar}
								timer={data.timers.find((t) => t.step === step?.key) ?? null}
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
						{run.worst === 'stop' || run.worst === 'repair'
							? 'Sign: it stays held'
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
			<div class="answers no-print">
				{#if run.complete && !step}
					<button type="button" class="button big good" onclick={sign} disabled={signing}
						><kbd>Enter</kbd> {signing ? 'Signing ...' : 'Sign'}</button
					>
				{:else}
					<button
						type="button"
						class="button big good"
						onclick={() => give('good')}
						disabled={!step || choosing || step.reading !== undefined}><kbd>1</kbd> Good</button
					>
					<button
						type="button"
						class="button big reject"
						onclick={() => (choosing = !choosing)}
						disabled={!step}
						aria-expanded={choosing}><kbd>2</kbd> Reject</button
					>
					<button
						type="button"
						class="button big"
						onclick={() => give('not fitted')}
						disabled={!step?.ifFitted || choosing}><kbd>3</kbd> Not fitted</button
					>
				{/if}
				<button
					type="button"
					class="button"
					onclick={() => {
						noting = true;
						setTimeout(() => noteField?.focus());
					}}
					disabled={!step}><kbd>N</kbd> Note</button
				>
				<button type="button" class="button" onclick={undo} disabled={run.done === 0}
					><kbd>U</kbd> Undo</button
				>
			</div>
		{/if}
	{/if}
</div>

<style>
	.answers {
		position: fixed;
		left: 0;
		right: 0;
		bottom: 0;
		display: grid;
		grid-template-columns: 2fr 1.6fr 1.2fr;
		gap: 8px;
		padding: 10px 1rem calc(10px + env(safe-area-inset-bottom));
		background: var(--paper);
		border-top: 1px solid var(--rule);
	}
	.big {
		min-height: 60px;
		font-size: 1.15rem;
		padding: 0 0.5rem;
	}
	.good {
		background: var(--ready);
		border-color: var(--ready);
		color: var(--onaccent);
	}
	.good:hover:not(:disabled) {
		background: var(--ready);
		filter: brightness(1.1);
	}
	.good:disabled {
		background: var(--tint);
		border-color: var(--rule);
		color: var(--soft);
	}
	.reject {
		border-color: var(--held);
		color: var(--held);
	}
	@media (min-width: 64rem) {
		.answers {
			left: 136px;
			grid-template-columns: 2.2fr 1.6fr 1.2fr auto auto;
			gap: 12px;
			padding: 14px 1.6rem 18px;
		}
		.answers .button {
			min-height: 68px;
		}
	}
</style>
