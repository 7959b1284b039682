<script lang="ts">
	/** A fit test as it goes on and as it ended: what was counted, what each movement came to, and what is done next. */
	import { untrack } from 'svelte';
	import { readable } from '$core/plan/calendar';
	import { shownFactor } from '$core/fit/fit-factor';
	import { inHundred } from '$core/fit/pass-rate';
	import { canStillPass, READ_ALOUD, standingOf } from '$core/fit/protocols';
	import {
		type CounterReading,
		type ExerciseMeasured,
		factorsOf,
		measuredBy,
		sequenceOf,
		stepNow
	} from '$core/fit/sequence';
	import Because from '$lib/ui/because/Because.svelte';
	import Chart from '$lib/ui/chart/Chart.svelte';
	import { axis, line } from '$lib/ui/chart/parts';
	import { enhance } from '$lib/ui/form/enhance';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import FitFactors from '$lib/ui/people/FitFactors.svelte';
	import { FitStream } from '$lib/ui/people/fit-stream.svelte';
	import Reading from '$lib/ui/reading/Reading.svelte';
	import SecondScreen from '$lib/ui/screen/SecondScreen.svelte';
	import { siteMoment } from '$lib/ui/time/moments';
	import Tasting from './Tasting.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const open = $derived(data.session.endedAt === null);
	const protocol = $derived(data.counted?.protocol ?? null);
	const stream = untrack(
		() =>
			new FitStream(
				data.session.id,
				data.readings,
				data.session.endedAt === null && data.session.method === 'quantitative'
			)
	);
	const readings = $derived<CounterReading[]>(open ? stream.readings : data.readings);
	const measured = $derived(
		protocol ? measuredBy(protocol, readings, { leastRoom: data.session.leastRoom }) : []
	);
	const factors = $derived(factorsOf(measured));
	const standing = $derived(protocol ? standingOf(protocol, factors) : null);
	const canPass = $derived(!protocol || canStillPass(protocol, factors, data.session.mask));
	const steps = $derived(protocol ? sequenceOf(protocol) : []);
	const now = $derived(open ? stepNow(steps, readings) : null);
	const nameOf = (key: string | undefined) =>
		protocol?.exercises.find((one) => one.key === key)?.name ?? '';
	/** Movement and line: what the wearer is told changes with them, not with each count. */
	const moment = $derived(open ? `${now?.exercise ?? ''} ${now?.line ?? ''}` : 'ended');
	/** What a tablet before the wearer shows. */
	const shows = $derived.by(() => {
		const at = moment === 'ended' ? null : untrack(() => now);
		const exercise = protocol?.exercises.find(({ key }) => key === at?.exercise);
		const next = protocol?.exercises[protocol.exercises.findIndex((one) => one === exercise) + 1];
		return {
			about: 'Fit test',
			title:
				moment === 'ended'
					? 'The test has ended'
					: (exercise?.name ?? (at ? 'Breathe as always' : 'It begins in a moment')),
			text:
				moment === 'ended'
					? 'Leave the mask on until you are told.'
					: (exercise?.says ?? 'Stand still, breathe as always.'),
			lines: [
				...(exercise?.key === 'talk' ? [READ_ALOUD] : []),
				...(exercise && next ? [`Then: ${next.name.toLowerCase()}`] : [])
			],
			figure: null,
			until: at ? new Date(Date.now() + at.leftS * 1000).toISOString() : null
		};
	});
	const last = $derived(readings.at(-1));
	const worst = $derived(standing?.worst ?? null);
	/** What the counter saw on one of its lines; nothing at all is drawn at the foot of the scale. */
	const counts = (side: 'room' | 'mask') =>
		readings
			.filter(({ step }) => steps[step]?.line === side)
			.map(({ s, perCm3 }) => ({ x: s, y: Math.max(0.1, perCm3) }));
	const ENDS = {
		whole: '',
		noticed: '',
		stopped: 'Ended before its end',
		lost: 'The counter went away: the test is not whole'
	} as const;
	const wayName = $derived(protocol?.name ?? data.agent?.name ?? '');
</script>

<svelte:head><title>Fit test, {data.wearer.name} · Grevan</title></svelte:head>
{#snippet act(one: ExerciseMeasured)}
	{#if open && data.mayTest && now}
		{#if now.exercise === one.key && now.line === 'mask'}<form
				method="post"
				action="?/move"
				use:enhance
			>
				<input type="hidden" name="exercise" value={one.key} /><button
					class="button w-full px-2!"
					name="how"
					value="later">Leave for later</button
				>
			</form>
		{:else if one.state === 'measured' || one.state === 'at fault'}<form
				method="post"
				action="?/move"
				use:enhance
			>
				<input type="hidden" name="exercise" value={one.key} /><button
					class="button w-full px-2!"
					name="how"
					value="again">Make it again</button
				>
			</form>{/if}
	{/if}
{/snippet}
<p class="crumb"><a class="linkish" href="/people/fit-tests">Fit tests</a></p>
<div class="flex flex-wrap items-center gap-x-4 gap-y-1">
	<h1><a class="linkish" href="/people/{data.wearer.id}">{data.wearer.name}</a></h1>
	<p>
		{#if data.tag}<a class="tag" href="/items/{data.tag}">{data.tag}</a> ·{/if}
		{data.model}, size {data.session.size}
		<span class="text-soft">· {wayName} · {data.by}, {siteMoment(data.session.startedAt)}</span>
	</p>
	<span class="ml-auto flex flex-wrap gap-2">
		{#if open && protocol}<a
				class="button"
				href="/people/fit-tests/{data.session.id}/wearer"
				target="_blank">Screen for the wearer</a
			>{/if}
		{#if data.readings.length}<a
				class="linkish inline-flex min-h-11 items-center"
				href="/people/fit-tests/{data.session.id}/readings.csv"
				data-sveltekit-reload>Readings as CSV</a
			>{/if}
		{#if data.signed}<a
				class="button"
				href="/people/fit-tests/{data.session.id}/certificate.pdf"
				data-sveltekit-reload>Certificate</a
			>{/if}
	</span>
</div>
{#if refusal}<div class="mt-3"><FormRefusal {refusal} /></div>{/if}
{#if data.session.againAfter}<p class="text-soft mt-1">
		Once more, with the mask put on anew. <a
			class="linkish"
			href="/people/fit-tests/{data.session.againAfter}">The test before it</a
		>
	</p>{/if}

<div class="mt-4 grid items-start gap-8 lg:grid-cols-[minmax(0,1fr)_21rem]">
	<section aria-label="Movements and counts" class="order-2 min-w-0 lg:order-none">
		{#if protocol}
			<FitFactors
				{protocol}
				{measured}
				limit={data.limit}
				most={data.most}
				current={now?.exercise ?? null}
				{act}
			/>
			<div class="mt-5">
				<Chart
					height={250}
					label="Particles counted in each cubic centimetre, in the room and in the mask, by the seconds of the test"
					config={(c) => ({
						type: 'scatter',
						data: {
							datasets: [
								{ ...line('in the room', counts('room'), c.soft), showLine: false, pointRadius: 2 },
								{
									...line('in the mask', counts('mask'), c.accent),
									showLine: false,
									pointRadius: 2
								}
							]
						},
						options: {
							plugins: { legend: { position: 'bottom', labels: { color: c.ink, boxHeight: 2 } } },
							scales: {
								x: { min: 0, ...axis(c, 'seconds of the test') },
								y: {
									...axis(c, 'particles in each cm³'),
									type: 'logarithmic',
									min: 0.1,
									max: 100_000
								}
							}
						}
					})}
				/>
			</div>
		{:else}<Tasting {data} />{/if}
		{#if data.otherwise.length}
			<h2 class="mt-6">The same counts under another protocol or rule set</h2>
			<ul>
				{#each data.otherwise as other (other.name)}<li
						class="rowline flex items-center gap-3 py-2"
					>
						<StateMark state={other.outcome === 'pass' ? 'good' : 'reject'} />
						<span
							><b>{other.name}</b>: {other.outcome === 'pass' ? 'passed' : 'not passed'}.
							<span class="text-soft">{other.reasons.map(({ text }) => text).join(' ')}</span></span
						>
					</li>{/each}
			</ul>
			<p class="text-soft">For comparison only: what was signed stands.</p>
		{/if}
	</section>

	<aside
		class="order-1 grid grid-cols-[minmax(0,1fr)] gap-4 rounded border-2 border-ink bg-sheet p-4 lg:sticky lg:top-4 lg:order-none"
		aria-label="How it stands"
	>
		{#if protocol && data.mayTest}<SecondScreen {shows} offered={open} />{/if}
		{#if open && protocol}
			<div role="status">
				<p class="text-soft">
					{#if stream.link === 'reconnecting'}Reconnecting; the counts go on being kept
					{:else if !now}The counter begins …
					{:else if now.line === 'room'}The counter samples the room
					{:else}The counter samples the mask{/if}
				</p>
				<p class="text-[1.6rem] leading-tight font-bold">
					{now?.exercise ? nameOf(now.exercise) : now ? 'Breathe as always' : ''}
				</p>
			</div>
			{#if now}<Reading label="Goes on for" value={now.leftS.toFixed(0)} unit="s" />{/if}
			<Reading
				label={last && steps[last.step]?.line === 'room' ? 'In the room now' : 'In the mask now'}
				value={last ? last.perCm3.toFixed(last.perCm3 < 10 ? 1 : 0) : '…'}
				unit="/cm³"
			/>
			<Reading
				label="Factor so far"
				value={standing?.overall ? String(shownFactor(standing.overall)) : '…'}
				unit=""
				limit="{data.limit} to pass"
			/>
			{#if !canPass}<p class="font-semibold text-held">
					It cannot be passed any more: {worst ? `${nameOf(worst.key)} let too much in` : ''}. End
					it, put the mask on anew.
				</p>{/if}
			{#if data.mayTest}<form method="post" action="?/stop" use:enhance>
					<button class="button w-full">{canPass ? 'Stop the test' : 'End it here'}</button>
				</form>{/if}
			{#if data.faults.length}<form method="post" action="?/behave" use:enhance>
					<label
						><span class="label">The simulated counter</span><span class="flex gap-2"
							><select name="fault" class="min-w-0 flex-1"
								>{#each data.faults as fault (fault)}<option>{fault}</option>{/each}</select
							><button class="button">Set</button></span
						></label
					>
				</form>{/if}
		{:else if open}
			<p class="text-[1.3rem] leading-tight font-bold">{data.agent?.name}</p>
			{#if data.mayTest}<form method="post" action="?/stop" use:enhance>
					<button class="button w-full">Stop the test</button>
				</form>{/if}
		{:else}
			<div>
				<p class="flex items-center gap-3 text-[1.5rem] leading-tight font-bold" role="status">
					<StateMark
						state={data.passed === null ? 'open' : data.passed ? 'good' : 'reject'}
						size={28}
					/>
					{data.passed === null ? 'Not whole' : data.passed ? 'Passed' : 'Not passed'}
				</p>
				{#if data.session.ended && ENDS[data.session.ended]}<p class="mt-1">
						{ENDS[data.session.ended]}.
					</p>{/if}
				{#if data.counted?.verdict}<p class="mt-1">
						<span class="font-mono text-[1.4rem] font-semibold"
							>{shownFactor(data.counted.verdict.overall)}</span
						>
						overall, {data.limit} to pass
					</p>{/if}
				{#if data.passed === false && worst}<p class="mt-1">
						Leaked most at <b>{nameOf(worst.key).toLowerCase()}</b>, factor {shownFactor(
							worst.factor
						)}.
					</p>{/if}
				{#if data.session.noticedAt}<p class="mt-1">
						Noticed through the mask: {data.agent?.notices}.
					</p>{/if}
			</div>
			{#if data.signed}
				<Because
					title="{data.model}, size {data.session.size}: {data.signed.passed
						? 'passed'
						: 'not passed'}"
					reasons={data.signed.reasons}
				/>
				<p class="text-soft">Signed {siteMoment(data.signed.signedAt)}.</p>
				{#if data.after && data.after.outcome !== 'done'}
					<div class="border-t border-rule pt-3">
						<p>{data.after.reasons[0]?.text}</p>
						{#if data.after.outcome === 'put it on anew'}<a
								class="button primary mt-2 w-full"
								href="/people/{data.wearer.id}/fit?{new URLSearchParams({
									model: data.model,
									size: data.session.size,
									again: data.session.id,
									tag: data.tag ?? ''
								})}">Put it on anew, test again</a
							>{/if}
						{#each data.after.next as mask, i (mask.model + mask.size)}
							<a
								class={['button mt-2 w-full justify-start! text-left', i === 0 && 'primary']}
								href="/people/{data.wearer.id}/fit?{new URLSearchParams({
									model: mask.model,
									size: mask.size
								})}"
								><span
									>{mask.model}, size {mask.size}<br /><span class="text-[0.9rem] font-normal"
										>{inHundred(mask.rate)} in 100 pass ({Math.round(mask.lower * 100)} to {Math.round(
											mask.upper * 100
										)}{mask.few ? `; only ${mask.tested} tested` : `, ${mask.tested} tested`}) · {mask.ready}
										ready</span
									></span
								></a
							>
						{/each}
					</div>
				{:else if data.signed.passed}
					<p>Counts until {readable(data.until ?? '')}.</p>
					{#if form && 'opened' in form && form.opened}<Notice kind="good"
							><p>
								Write on each filter: <b class="tag">{form.opened.tag}</b>. On {form.opened.item}:
								change by {readable(form.opened.changeOn)}.
								<a class="linkish" href="/filters/pairs/{form.opened.tag}/label">Print the labels</a
								>
							</p></Notice
						>
					{:else if data.filters?.lots.length}
						<details>
							<summary class="min-h-11 cursor-pointer content-center font-semibold"
								>New filters on {data.filters.tag}</summary
							>
							<form method="post" action="?/filters" class="grid gap-3" use:enhance>
								<input type="hidden" name="id" value={data.filtersId} />
								<p class="text-soft">
									In place of {data.filters.pair}, for {data.filters.task}.
								</p>
								<label
									><span class="label">Filters</span><select name="lotId" class="w-full"
										>{#each data.filters.lots as lot (lot.id)}<option value={lot.id}
												>{lot.name}, lot {lot.lot}, until {readable(lot.useBy)}</option
											>{/each}</select
									></label
								>
								<label
									><span class="label">Initials</span><input
										name="initials"
										value={data.actor?.initials}
										maxlength="4"
										class="w-24"
									/></label
								>
								<button class="button">Open and date today</button>
							</form>
						</details>
					{/if}
				{/if}
			{:else if data.mayTest && (data.passed !== null || !canPass)}
				<form method="post" action="?/sign" class="grid gap-2" use:enhance>
					{#if data.passed}<button class="button primary" name="then" value="stay"
							>Sign: passed</button
						>
					{:else}<button class="button primary" name="then" value="again"
							>Sign: not passed, and once more</button
						><button class="button" name="then" value="stay">Sign: not passed</button>{/if}
				</form>
			{:else if data.mayTest}
				<p>Nothing to sign: a test is judged whole.</p>
				<a
					class="button primary"
					href="/people/{data.wearer.id}/fit?{new URLSearchParams({
						model: data.model,
						size: data.session.size,
						tag: data.tag ?? ''
					})}">Begin it again</a
				>
			{/if}
		{/if}
	</aside>
</div>
