<script lang="ts">
	import PaperLink from '$lib/ui/records/PaperLink.svelte';
	import { BATCH_STEPS, BROKEN_DECISIONS, DECISION_WORDS, STEP_WORDS } from '$core/care/batch';
	import { WHERE_WORDS } from '$core/custody/custody';
	import { freshId } from '$lib/fresh-id';
	import Because from '$lib/ui/because/Because.svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import Notice from '$lib/ui/form/Notice.svelte';
	import ScanForm from '$lib/ui/form/ScanForm.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import Reading from '$lib/ui/reading/Reading.svelte';
	import { minutesAndSeconds, serverClock } from '$lib/ui/timer/clock.svelte';
	import { siteMoment, siteTime } from '$lib/ui/time/moments';
	import DoseForm from './DoseForm.svelte';

	let { data, form } = $props();
	const batch = $derived(data.batch);
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const result = $derived(form && 'result' in form ? form.result : null);
	const broken = $derived(
		result && typeof result === 'object' && 'reasons' in result ? result.reasons : null
	);
	const hottest = $derived(Math.max(...data.readings.map(({ celsius }) => celsius)));
	const limit = $derived(data.strictest.washMaxC);
	const left = $derived(
		data.readyAt === null ? null : Math.max(0, Math.ceil((data.readyAt - serverClock.now) / 1000))
	);
	const contactS = $derived((batch.contactMin ?? 2) * 60);
	const at = $derived(BATCH_STEPS.indexOf(batch.step));
	const TIMES = $derived<Record<string, Date | null>>({
		load: batch.startedAt,
		wash: batch.washedAt,
		disinfect: batch.dosedAt,
		rinse: batch.rinsedAt,
		dry: batch.dryAt,
		ended: batch.endedAt
	});
	let driedBy = $state('air');
</script>

<svelte:head><title>Wash batch {batch.number} · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/wash">Wash line</a></p>
<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>Batch {batch.number}</h1>
	<p class="text-soft">
		{data.items.length} in it, {data.by}, {siteMoment(batch.startedAt)}{batch.onlyFor
			? `; a bath for ${batch.onlyFor} alone`
			: ''}
	</p>
</div>
<ol class="mt-3 flex flex-wrap border-b-4 border-ink" aria-label="Steps of the batch">
	{#each BATCH_STEPS as step, i (step)}
		<li
			class="min-w-20 flex-1 px-1 py-1 text-center {i === at
				? 'bg-tint font-bold shadow-[inset_0_-4px_0_var(--accent)]'
				: i < at
					? ''
					: 'text-soft'}"
			aria-current={i === at ? 'step' : undefined}
		>
			{STEP_WORDS[step]}<span class="block font-mono text-[0.85rem] font-normal"
				>{TIMES[step] ? siteTime(TIMES[step]) : '–'}</span
			>
		</li>
	{/each}
</ol>
{#if refusal}<div class="mt-3"><Notice kind="refusal"><p>{refusal.message}</p></Notice></div>{/if}
<div class="mt-4 grid gap-x-8 gap-y-6 lg:grid-cols-[minmax(0,1fr)_24rem]">
	<section aria-label="What is next" class="min-w-0">
		{#if !data.mayWash}<p>A technician goes on with it.</p>
		{:else if batch.step === 'load'}
			<ScanForm
				action="?/into"
				field="into"
				label="Scan into the bath: filters off, inner cup and valves out"
				button="Into it"
				primary
			/>
			<form method="post" action="?/step" use:enhance class="mt-4">
				<input type="hidden" name="to" value="wash" />
				<button class="button primary" disabled={data.items.length === 0}
					>All in: the bath is filled, wash</button
				>
				<p class="text-soft mt-1">
					At most {Number.isFinite(limit) ? limit : 43} °C, neutral detergent, soft brush. No solvent,
					oil or abrasive.
				</p>
			</form>
		{:else if batch.step === 'wash'}
			<p>Wash by hand, rinse in running water, then put in what disinfects.</p>
			<DoseForm
				stock={data.stock}
				agents={data.strictest.agents}
				cleaner={batch.cleaner}
				refusal={refusal?.path ? refusal : null}
			/>
		{:else if batch.step === 'disinfect'}
			<p class="font-mono text-[3.4rem] leading-none font-bold" role="timer">
				{left ? minutesAndSeconds(left) : '0:00'}
				<span class="text-soft font-sans text-[1rem] font-normal"
					>of {minutesAndSeconds(contactS)}</span
				>
			</p>
			<svg
				viewBox="0 0 100 4"
				preserveAspectRatio="none"
				class="mt-2 h-3 w-full"
				aria-hidden="true"
			>
				<rect width="100" height="4" fill="var(--rule)" />
				<rect width={100 - ((left ?? 0) / contactS) * 100} height="4" fill="var(--wash)" />
			</svg>
			<form method="post" action="?/step" use:enhance class="mt-4">
				<input type="hidden" name="to" value="rinse" />
				<button class={['button', !left && 'primary']}>Out of it: rinse</button>
				{#if left}<p class="text-soft mt-1">
						Not yet: earlier than this it does not disinfect, and the batch says so.
					</p>{/if}
			</form>
		{:else if batch.step === 'rinse'}
			<form method="post" action="?/step" use:enhance>
				<input type="hidden" name="to" value="dry" />
				<fieldset>
					<legend class="label">Rinsed thoroughly?</legend>
					<label class="mr-6 inline-flex min-h-11 items-center gap-2"
						><input type="radio" name="rinsed" value="yes" checked /> yes</label
					>
					<label class="inline-flex min-h-11 items-center gap-2"
						><input type="radio" name="rinsed" value="no" /> no</label
					>
				</fieldset>
				<fieldset class="mt-3">
					<legend class="label">Dried by; valves laid flat</legend>
					{#each [['air', 'the air of the room'], ['cabinet', 'the cabinet'], ['direct heat', 'direct heat']] as [value, words] (value)}<label
							class="mr-6 inline-flex min-h-11 items-center gap-2"
							><input type="radio" name="driedBy" {value} bind:group={driedBy} /> {words}</label
						>{/each}
				</fieldset>
				{#if driedBy === 'cabinet'}
					<label class="label mt-3" for="cabinet">Cabinet, °C</label>
					<input id="cabinet" name="cabinetC" inputmode="decimal" class="w-28 font-mono" />
					<span class="text-soft ml-2"
						>{data.strictest.cabinetMaxC === undefined
							? 'not every maker says how hot'
							: `at most ${data.strictest.cabinetMaxC} °C`}</span
					>
				{/if}
				<p class="mt-4"><button class="button primary">Laid out to dry</button></p>
			</form>
		{:else if batch.step === 'dry'}
			{#if broken}
				<div class="rounded border-2 border-held bg-heldtint p-4" role="alert">
					<p class="text-[1.35rem] leading-tight font-bold">A limit was broken</p>
					<ul class="mt-2">
						{#each broken as text (text)}<li>{text}</li>{/each}
					</ul>
				</div>
				<h2 class="mt-4">What is done with them?</h2>
				{#each BROKEN_DECISIONS as decision (decision)}
					<form method="post" action="?/step" use:enhance class="rowline py-1">
						<input type="hidden" name="to" value="ended" />
						<input type="hidden" name="decision" value={decision} />
						<button class="button w-full justify-start!">{DECISION_WORDS[decision]}</button>
					</form>
				{/each}
			{:else}
				<p>Dry at room air or in the cabinet; no sun, no radiator.</p>
				<form method="post" action="?/step" use:enhance class="mt-3">
					<input type="hidden" name="to" value="ended" />
					<button class="button primary">Dry: end the batch</button>
				</form>
			{/if}
		{:else}
			<div
				class="rounded border-2 p-4 {batch.outcome === 'pass'
					? 'border-ready bg-tint'
					: 'border-held bg-heldtint'}"
				role="status"
			>
				<p class="text-[1.35rem] leading-tight font-bold">
					{batch.outcome === 'pass'
						? 'Within every limit'
						: batch.outcome === 'fail'
							? 'A limit was broken'
							: 'Given up'}
				</p>
				{#if batch.decision}<p class="mt-1">{DECISION_WORDS[batch.decision]}</p>{/if}
				{#if batch.reasons}<Because title="Batch {batch.number}" reasons={batch.reasons} />{/if}
			</div>
			<p class="mt-3 flex flex-wrap items-center gap-4">
				<a class="button primary" href="/wash/look">Look them over</a>
				<PaperLink kind="wash-batch" id={batch.id} />
			</p>
		{/if}
		<h2 class="mt-6">In it, {data.items.length}</h2>
		<ul>
			{#each data.items as one (one.tag)}
				<li class="rowline flex min-h-11 flex-wrap items-center gap-x-3 py-1">
					<StateMark state={one.where === 'shelf' ? 'ready' : 'in wash'} />
					<a class="tag inline-flex min-h-9 items-center" href="/items/{one.tag}">{one.tag}</a>
					<span>{one.model}, {one.size}</span>
					<span class="text-soft ml-auto">{WHERE_WORDS[one.where]}</span>
					{#if batch.step === 'load' && data.mayWash}<form method="post" action="?/out" use:enhance>
							<input type="hidden" name="tag" value={one.tag} />
							<button class="linkish min-h-11" aria-label="{one.tag} out again">out again</button>
						</form>{/if}
				</li>
			{/each}
		</ul>
		{#if data.mayWash && !batch.endedAt}
			<details class="mt-6">
				<summary class="linkish inline-flex min-h-11 items-center">Give this batch up</summary>
				<form method="post" action="?/give-up" use:enhance class="flex flex-wrap items-end gap-3">
					<div class="min-w-0 flex-1">
						<label class="label" for="why">Why</label>
						<input id="why" name="why" maxlength="300" class="w-full" />
					</div>
					<button class="button">Give it up</button>
				</form>
			</details>
		{/if}
	</section>
	<aside class="self-start rounded border-2 border-ink bg-sheet p-4">
		{#if data.readings.length}<Reading
				label="Bath, the hottest that was read"
				value={hottest.toFixed(1)}
				unit="°C"
				limit={Number.isFinite(limit) ? `${limit} at most` : ''}
			/>
			{#if hottest > limit}<p class="mt-1 font-semibold text-held">
					Too hot: discs may have warped. The batch asks at its end what is done.
				</p>{/if}
		{:else}<p>How warm the bath is was not read yet.</p>{/if}
		{#if data.mayWash && !batch.endedAt && batch.step !== 'dry'}
			{#if data.gauge?.live}<form method="post" action="?/measure" use:enhance class="mt-3">
					<input type="hidden" name="id" value={freshId()} />
					<button class="button">Read the thermometer</button>
				</form>{:else if data.gauge}<p class="mt-2 text-held">{data.gauge.says}</p>{/if}
			<form method="post" action="?/read" use:enhance class="mt-3 flex items-end gap-3">
				<input type="hidden" name="id" value={freshId()} />
				<div>
					<label class="label" for="celsius">Or type it, °C</label>
					<input id="celsius" name="celsius" inputmode="decimal" class="w-28 font-mono" />
				</div>
				<button class="button">Keep it</button>
			</form>
		{/if}
		{#if batch.agent}<div class="mt-4 border-t border-rule pt-3">
				<Reading
					label="{batch.agent}, {data.stockName}"
					value={batch.dosePpm === null ? '–' : batch.dosePpm.toFixed(0)}
					unit={batch.dosePpm === null ? 'as its label says' : 'ppm'}
					large={false}
				/>
				<p class="text-soft mt-1">{batch.stockMl} mL into {batch.volumeL} L</p>
			</div>{/if}
		<p class="mt-4">Never chlorine together with acids or ammonia: poisonous gas.</p>
		{#if data.faults}<details class="mt-3">
				<summary class="linkish inline-flex min-h-11 items-center">Simulated bath</summary>
				<form method="post" action="?/fill" use:enhance class="grid gap-2">
					<label class="label" for="fillC">Fill it anew, °C</label>
					<input id="fillC" name="celsius" inputmode="decimal" value="41" class="w-28 font-mono" />
					<label class="label" for="fault">Thermometer</label>
					<select id="fault" name="fault">
						{#each data.faults as fault (fault)}<option>{fault}</option>{/each}
					</select>
					<button class="button">Fill</button>
				</form>
			</details>{/if}
	</aside>
</div>
