<script lang="ts">
	/** One wearer: which fit tests count today and why the others do not; a change is reported here. */
	import { shownFactor } from '$core/fit/fit-factor';
	import { CHANGE_WORDS, FACE_CHANGES } from '$core/people/fit-standing';
	import { readable } from '$core/plan/calendar';
	import { freshId } from '$lib/fresh-id';
	import Because from '$lib/ui/because/Because.svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import PaperLink from '$lib/ui/records/PaperLink.svelte';
	import WearerForm from '$lib/ui/people/WearerForm.svelte';
	import Erase from './Erase.svelte';
	import Own from './Own.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	/** What is refused of the form with what is kept; the rest is said where it was asked, or above. */
	const keptRefusal = $derived(
		refusal?.path && !['erase', 'tag'].includes(refusal.path) ? refusal : null
	);
	let changeId = $state(freshId());
	const until = (day: string | null) =>
		day ? `${day < data.asOf ? 'lapsed' : 'until'} ${readable(day)}` : 'not on record';
	const counting = $derived(data.tests.filter(({ verdict }) => verdict.outcome === 'counts'));
</script>

<svelte:head><title>{data.wearer.name} · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/people">People</a></p>
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<h1>{data.wearer.name}</h1>
	<p class="text-soft">
		number <span class="font-mono">{data.wearer.number}</span>{data.places.length
			? ` · ${data.places.map(({ name }) => name).join(', ')}`
			: ''}
	</p>
	{#if data.mayTest && !data.wearer.erasedOn}<span class="ml-auto flex flex-wrap gap-2"
			>{#if data.open}<a class="button primary" href="/people/fit-tests/{data.open}"
					>To the test under way</a
				>{:else}<a class="button primary" href="/people/{data.wearer.id}/fit">Fit test</a>{/if}<a
				class="button"
				href="/people/{data.wearer.id}/fit/paper">From paper</a
			></span
		>{/if}
</div>
{#if data.wearer.erasedOn}<div class="mt-3">
		<Notice kind="caution"
			><p>
				Who this is was erased on {readable(data.wearer.erasedOn)}. The tests stay, as part of what
				the record says.
			</p></Notice
		>
	</div>{/if}
{#if refusal && !refusal.path && !refusal.fields?.length}<div class="mt-3">
		<FormRefusal {refusal} />
	</div>{/if}
{#if form && 'kept' in form}<div class="mt-3">
		<Notice kind="good"><p role="status">Kept.</p></Notice>
	</div>{/if}
{#if form && 'reported' in form && form.reported}<div class="mt-3">
		<Notice kind="caution"
			><p role="status">
				Reported: {CHANGE_WORDS[form.reported]}. Every fit test before it ended today.
			</p></Notice
		>
	</div>{/if}
<div class="mt-4 grid gap-x-10 gap-y-7 lg:grid-cols-[minmax(0,1fr)_22rem]">
	<section aria-labelledby="tests">
		<h2 id="tests">Fit tests</h2>
		{#if data.tests.length === 0}<p class="mt-1">
				None on record. Nothing that seals on the face is handed out before one was passed.
			</p>{/if}
		<ul>
			{#each data.tests as test (test.id)}
				<li class="rowline grid grid-cols-[1.6rem_1fr_auto] items-start gap-x-3 py-2">
					<StateMark state={test.verdict.outcome === 'counts' ? 'ready' : 'retired'} />
					<span
						><b>{test.model}, size {test.size}</b>
						{#if test.sessionId}<a class="linkish" href="/people/fit-tests/{test.sessionId}"
								>the test</a
							>{/if}
						<span class="text-soft"
							>· {readable(test.testedOn)}, {test.method}{test.overall === null
								? ''
								: `, factor ${shownFactor(test.overall)}`}{test.fromPaper
								? ', from paper'
								: ''}{test.worn ? `, with ${test.worn}` : ''}</span
						><br />{test.verdict.reasons[0]?.text ?? ''}</span
					>
					<Because
						title="{test.model}, size {test.size}: {test.verdict.outcome}"
						reasons={[...test.verdict.reasons, ...test.reasons]}
					/>
				</li>
			{/each}
		</ul>
		{#if data.changes.length}
			<h2 class="mt-6">Changes reported</h2>
			<ul>
				{#each data.changes as change (change.at)}<li class="rowline py-1">
						{readable(change.on)}: {CHANGE_WORDS[change.what]}
					</li>{/each}
			</ul>
		{/if}
		<Own {data} {refusal} />
		{#if data.mayKeep && !data.wearer.erasedOn}
			<details class="mt-6">
				<summary class="min-h-11 cursor-pointer content-center font-semibold">What is kept</summary>
				<div class="mt-2">
					{#key data.wearer.version}<WearerForm
							wearer={data.wearer}
							placeIds={data.places.map(({ id }) => id)}
							places={data.allPlaces}
							accounts={data.accounts}
							refusal={keptRefusal}
						/>{/key}
				</div>
			</details>
		{/if}
		{#if data.mayErase && !data.wearer.erasedOn}<Erase wearer={data.wearer} {refusal} />{/if}
	</section>
	<aside class="self-start rounded border-2 border-ink bg-sheet p-4" aria-label="Standing">
		<p class="text-[1.3rem] leading-tight font-bold">
			{counting.length
				? `${counting.length} ${counting.length === 1 ? 'fit test counts' : 'fit tests count'}`
				: 'No fit test counts'}
		</p>
		<dl class="mt-2 grid grid-cols-[7rem_1fr] gap-x-3 gap-y-1">
			<dt class="text-soft">Cleared</dt>
			<dd>{until(data.wearer.clearedUntil)}</dd>
			<dt class="text-soft">Trained</dt>
			<dd>{until(data.wearer.trainedUntil)}</dd>
			<dt class="text-soft">Face</dt>
			<dd>
				{data.wearer.beard ? 'beard: nothing that seals on it' : 'clean as last seen'}{data.wearer
					.eyewear
					? ', glasses'
					: ''}
			</dd>
			{#if data.account}<dt class="text-soft">Account</dt>
				<dd>{data.account}</dd>{/if}
		</dl>
		<PaperLink kind="wearer" id={data.wearer.id} words="What was worn (PDF)" class="linkish mt-2" />
		{#if data.mayReport && !data.wearer.erasedOn}
			<form
				method="post"
				action="?/report"
				class="mt-4 grid gap-2"
				use:enhance={() =>
					async ({ update }) => {
						await update();
						changeId = freshId();
					}}
			>
				<input type="hidden" name="id" value={changeId} />
				<h2>A change is reported</h2>
				<p class="text-soft">It ends the fit tests today. A seal check is never a fit test.</p>
				{#each FACE_CHANGES as what (what)}<button
						class="button w-full justify-start! text-left"
						name="what"
						value={what}><span class="first-letter:uppercase">{CHANGE_WORDS[what]}</span></button
					>{/each}
			</form>
		{/if}
	</aside>
</div>
