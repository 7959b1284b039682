<script lang="ts">
	import { hearsKeys } from '$lib/ui/shell/keys.svelte';
	import { dialOf, NEVER_WETTED } from '$core/register/model-card';
	import { onMount, untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { ZONE_NAMES } from '$core/airway/airway';
	import { airwayOf, stationOf } from '$core/data/families';
	import { heardAt } from '$core/listen/listens';
	import { onRecordAt } from '$core/inspection/on-record';
	import { readingText } from '$core/inspection/reading';
	import Airway from '$lib/ui/airway/Airway.svelte';
	import { marksOfAnswers } from '$lib/ui/airway/item-marks';
	import Notice from '$lib/ui/form/Notice.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { outboxSender } from '$lib/ui/run/outbox-sender.svelte';
	import { RunSession, type GivenAnswer, type Hold } from '$lib/ui/run/session.svelte';
	import { outbox } from '$lib/ui/outbox/outbox.svelte';
	import { recall, remember } from '$lib/ui/outbox/store';
	import { siteDay, siteMoment } from '$lib/ui/time/moments';
	import { serverClock } from '$lib/ui/timer/clock.svelte';
	import Assistant from './Assistant.svelte';
	import AnswerBar from '$lib/ui/run/AnswerBar.svelte';
	import Photos from '$lib/ui/photo/Photos.svelte';
	import HandsFree from '$lib/ui/run/HandsFree.svelte';
	import SecondScreen from '$lib/ui/screen/SecondScreen.svelte';
	import { sound } from '$lib/ui/sound/sounds';
	import SoundHint from '$lib/ui/listen/SoundHint.svelte';
	import ReadingStep from '$lib/ui/run/ReadingStep.svelte';
	import StepSheet from '$lib/ui/run/StepSheet.svelte';
	import SignedRun from './SignedRun.svelte';

	let { data, form } = $props();
	const person = untrack(() => data.actor?.id ?? '');
	const session = new RunSession(
		() => ({
			id: data.run.id,
			procedure: data.procedure,
			closed: data.run.signedAt !== null || !data.mayInspect,
			worked: data.worked,
			assisted: data.assistant !== null,
			timers: data.timers,
			limits: data.limits
		}),
		untrack(() =>
			outboxSender(
				{ id: data.run.id, tag: data.item.tag, procedure: data.procedure, person },
				invalidateAll
			)
		),
		() => serverClock.now,
		untrack(() => data.answers)
	);
	const procedure = $derived(data.procedure);
	const airway = $derived(airwayOf(data.item.family));
	const mine = $derived(outbox.waiting.filter((p) => p.about === data.run.id));
	const signing = $derived(mine.some((p) => p.last));
	const { run, step, answered, active, choosing, forAnother, found, timer, standing, refused } =
		$derived(session);
	const marks = $derived(marksOfAnswers(procedure, standing));
	const signed = $derived(data.run.signedAt !== null);
	const inspecting = $derived(data.run.purpose === 'inspection');
	const station = $derived(step ? stationOf(data.item.family, step.station) : null);
	const before = $derived(data.last?.answers.findLast((a) => a.step === step?.key));
	const makerSays = $derived([
		...data.makerLines.filter((line) => line.station === step?.station),
		...(step && data.card.keepDry?.includes(step.station)
			? [{ station: step.station, text: NEVER_WETTED }]
			: [])
	]);
	const onRecord = $derived(step && data.onRecord ? onRecordAt(step, data.onRecord) : []);
	/** Drawn to be read from two metres. */
	let far = $state(false);
	/** The step as it is read aloud. */
	const words = $derived(
		step ? `${step.title}. ${step.action}` : run.complete ? 'All steps are answered. Sign.' : ''
	);
	const hears = $derived(step ? heardAt(step) : null);
	/** What a tablet beside the bench shows of it. */
	const shows = $derived.by(() => {
		const timerUntil = timer ? new Date(timer.startedAt).getTime() + timer.seconds * 1000 : null;
		return {
			about: `${data.item.tag} · ${procedure.name}`.slice(0, 80),
			title: step?.title ?? (run.complete ? 'Sign' : `${run.left.length} steps left`),
			text: step?.action ?? '',
			lines: makerSays.slice(0, 3).map(({ text }) => `Maker: ${text}`),
			figure: answered?.readings ? readingText(answered.readings).slice(0, 20) : null,
			until: timerUntil ? new Date(timerUntil).toISOString() : null
		};
	});
	// Each answer is heard to be taken, a refusal and the end sound otherwise.
	let heard = untrack(() => run.done);
	$effect(() => {
		if (run.done > heard) sound(signed ? 'kept' : 'read');
		heard = run.done;
	});
	$effect(() => {
		if (refused) sound('refused');
	});
	$effect(() => {
		if (signing) sound('kept');
	});
	/** The second person is saying who they are: the keys under the list would lie over theirs. */
	let naming = $state(false);
	let noteField: HTMLTextAreaElement | undefined = $state();

	$effect(() =>
		outbox.listen(
			(parcel, result) => {
				if (parcel.about !== data.run.id) return;
				const taken = result as { answers?: GivenAnswer[] };
				if (taken.answers) {
					session.kept = taken.answers;
					void remember(person, data.run.id, taken.answers);
					// Of the answers of one batch the last gives all; the page is made anew for anything else.
				} else if (!('value' in parcel.body)) void invalidateAll();
			},
			({ about }) => {
				if (about !== data.run.id) return;
				void invalidateAll().then(() => (session.kept = data.answers));
			}
		)
	);
	onMount(() => {
		// A page that was taken from the device may be older than what this device saw the server keep.
		const take = async () => {
			const known = await recall<GivenAnswer[]>(person, data.run.id);
			if ((known?.at(-1)?.position ?? 0) > (session.kept.at(-1)?.position ?? 0))
				session.kept = known ?? [];
			session.ownHold = (await recall<Hold>(person, `hold:${data.run.id}`)) ?? null;
			await outbox.awake;
		};
		void take()
			.catch(() => undefined)
			.finally(() => session.ready());
	});
	$effect(() => {
		if (session.noting) noteField?.focus();
	});
	hearsKeys(() =>
		session.active
			? [
					{ keys: '1', does: 'good' },
					{ keys: '2', does: 'reject, then the number of the code' },
					{ keys: '3', does: 'not fitted' },
					{ keys: 'Enter', does: 'next; at the end: sign' },
					{ keys: '← →', does: 'walk along the air' },
					{ keys: 'N', does: 'a note' },
					{ keys: 'U', does: 'take the last answer back' }
				]
			: []
	);
	const keepLine = $derived(
		mine.length
			? `${mine.length} ${outbox.unkept ? 'on this page only' : 'kept on this device'}, not yet on the server`
			: 'every answer kept'
	);
</script>

<svelte:head
	><title>{data.item.tag}, {inspecting ? 'inspection' : procedure.name} · Grevan</title
	></svelte:head
>
<svelte:window onkeydown={(event) => session.keys(event)} />
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
<div class={['flex flex-col', far && 'far']}>
	<div class={['mt-3 max-md:order-last max-md:pb-48', far && 'hidden']}>
		<Airway
			stations={airway.stations}
			{marks}
			label="Airway, with the state of each station"
			current={step?.station ?? null}
			onchoose={active ? (key) => session.goTo(key) : undefined}
		/>
	</div>
	{#if refused}<div class="my-3"><Notice kind="refusal"><p>{refused}</p></Notice></div>{/if}
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
		<SignedRun {data} now={data.now} refusal={form?.refusal ?? null} />
	{:else}
		<div
			class={[
				'mt-2 grid gap-8',
				far ? 'pb-[34vh]' : 'md:pb-40 lg:grid-cols-[minmax(0,1fr)_18rem] lg:pb-0'
			]}
		>
			<section aria-labelledby="step" class="min-h-[19rem]">
				<div class="float-right mb-2 ml-4 flex flex-wrap items-start justify-end gap-2">
					{#if active}<div class="max-sm:hidden"><SecondScreen {shows} /></div>{/if}
					{#if active}<HandsFree
							{words}
							bind:far
							onpedal={(does) => {
								const reading = document.querySelector<HTMLInputElement>('#reading');
								if (does === 'good' && reading) reading.form?.requestSubmit();
								else session.pedal(does);
							}}
						/>{/if}
				</div>
				{#if step && station}
					<p class="text-soft">
						Step {procedure.steps.indexOf(step) + 1} · {ZONE_NAMES[station.zone]}
					</p>
					<h2
						id="step"
						class={['leading-tight text-ink!', far ? 'text-[4.2rem]!' : 'text-[2rem]!']}
						aria-live="polite"
					>
						{step.title}
					</h2>
					<p class={['mt-1', far ? 'text-[2.9rem] leading-tight' : 'max-w-[40rem] text-[1.2rem]']}>
						{step.action}
					</p>
					{#each makerSays as line (line.text)}<p class="mt-1 max-w-[40rem]">
							<b>Maker:</b>
							{line.text}
						</p>{/each}
					{#if onRecord.length}<p class="mt-1 max-w-[40rem]">
							<b>On record:</b>
							{onRecord.join(' ')}
							<span class="text-soft">Compare it with what is there.</span>
						</p>{/if}
					{#if forAnother && active}<div class="mt-3 max-w-[40rem]">
							<Notice kind="caution"
								><p>
									A second person looks and answers this, under their own name: on their device, or
									here once they have said who they are. The list goes on where it stands.
								</p></Notice
							>
							<Assistant bind:open={naming} refusal={form?.refusal ?? null} />
						</div>{:else if step.secondPerson && data.assistant && active}<p class="mt-2">
							Answered by <b>{data.assistant}</b>, who stands here as the second person.
						</p>{/if}
					{#if step.reading && active}
						{#key step.key}<ReadingStep
								{step}
								limits={data.limits}
								dial={dialOf(data.card)}
								{timer}
								bench={data.hasBench ? `/api/runs/${data.run.id}/gauge` : null}
								tag={data.item.tag}
								answered={answered?.readings ?? null}
								onread={(readings) => session.read(readings)}
								onstart={(start) => session.startHold(start)}
							/>{/key}
					{/if}
					{#if active && hears && hears !== 'whistle'}{#key step.key}<SoundHint
								what={hears}
							/>{/key}{/if}
					<StepSheet
						family={data.item.family}
						{step}
						{choosing}
						onreject={(code) => session.give('reject', code)}
						onnone={() => (session.choosing = false)}
					>
						<h2 class="mt-3">Last time here</h2>
						<p>
							{#if before}{before.readings
									? `${readingText(before.readings)}, `
									: ''}{before.value}{before.code ? `, ${before.code}` : ''} · {data.last?.signedAt
									? siteDay(data.last.signedAt)
									: ''} · {data.last?.by}{:else}nothing on record{/if}
						</p>
						<h2 class="mt-3">Why</h2>
						<p class="text-soft">{step.why}</p>
					</StepSheet>
					<Photos
						url="/api/runs/{data.run.id}/photos"
						about={data.run.id}
						tag={data.item.tag}
						step={step.key}
						title={step.title}
						photos={data.photos.filter((p) => p.step === step?.key)}
						{active}
					/>
					{#if session.noting || session.note}
						<label class="label mt-3" for="note">Note for this step</label>
						<textarea
							id="note"
							bind:this={noteField}
							bind:value={session.note}
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
								: inspecting
									? 'Sign the inspection'
									: 'Sign the list'}
					</h2>
					<p class="mt-1 max-w-[40rem] text-[1.1rem]">
						With your name, under your account. After signing nothing in it can be changed; go back
						along the line first if something was missed.
					</p>
				{:else}
					<h2 id="step" class="text-[1.6rem]! text-ink!">{run.left.length} steps left</h2>
				{/if}
			</section>
			<aside aria-label="So far" class={['border-rule lg:border-l lg:pl-5', far && 'hidden']}>
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
					Started {siteMoment(data.run.startedAt)} by {data.startedBy}. Goes on from any device.
				</p>
			</aside>
		</div>
		{#if active && !(forAnother && naming)}
			<AnswerBar
				large={far}
				{step}
				ready={run.complete && !step}
				done={run.done}
				{choosing}
				blocked={forAnother}
				onsign={() => session.sign()}
				ongood={() => session.give('good')}
				onreject={() => (session.choosing = !session.choosing)}
				onabsent={() => session.give('not fitted')}
				onnote={() => (session.noting = true)}
				onundo={() => session.undo()}
			/>
		{/if}
	{/if}
</div>

<style>
	/* From two metres a figure is as large as the bench's own. */
	.far :global(#reading) {
		width: 14rem;
		height: 6.5rem;
		font-size: 4.5rem !important;
	}
	.far :global(form .button.primary) {
		min-height: 6.5rem;
		font-size: 2rem;
	}
	.far :global([role='status']) {
		font-size: 2rem;
	}
</style>
