<script lang="ts">
	/** Who may do which job, for what and until when. */
	import { readable } from '$core/plan/calendar';
	import { groupBy } from '$core/group-by';
	import { freshId } from '$lib/fresh-id';
	import DayField from '$lib/ui/form/DayField.svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import { refusedAt } from '$lib/ui/form/refused';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { PEOPLE_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';

	let { data, form } = $props();
	let id = $state(freshId());
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const at = (path: string) => refusedAt(refusal, path);
	const FIELDS = ['userId', 'job', 'from', 'until', 'evidence', 'modelIds'];
	let word = $state('');
	const shown = $derived(
		data.given.filter(({ person, job, scope, standing }) =>
			[person, job, scope, standing].join(' ').toLowerCase().includes(word.trim().toLowerCase())
		)
	);
	const byJob = $derived(groupBy(shown, ({ job }) => job));
	const asked = $derived(new Set(data.given.map(({ job }) => job)));
	const MARKS = {
		'in force': 'ready',
		'lapses soon': 'due',
		lapsed: 'overdue',
		'to come': 'open',
		'taken back': 'retired',
		'account closed': 'retired'
	} as const;
</script>

<svelte:head><title>Competence · Grevan</title></svelte:head>
<h1>Competence</h1>
<div class="mt-2"><SectionLinks label="People" links={PEOPLE_LINKS} /></div>
<p class="mt-3 max-w-[46rem]">
	A job that anybody was ever authorised for here is done and signed only by somebody who is. A job
	that nobody was authorised for goes by the role alone.
</p>
{#if form && 'given' in form}<div class="mt-3">
		<Notice kind="good"><p role="status">Authorised.</p></Notice>
	</div>{/if}
<div class="mt-4 grid items-start gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1fr)_23rem]">
	<div class="min-w-0">
		{#if data.given.length}<label class="block"
				><span class="sr-only">Filter the authorisations</span><input
					bind:value={word}
					class="w-full max-w-96"
					placeholder="person, job, lapsed, lapses soon"
				/></label
			>{/if}
		{#each data.jobs as job (job)}
			{@const rows = byJob.get(job) ?? []}
			{#if rows.length || !word}
				<section class="mt-5" aria-label={job}>
					<h2 class="first-letter:uppercase">{job}</h2>
					{#if !asked.has(job)}<p class="text-soft">Nobody yet: it goes by the role.</p>{/if}
					<ul>
						{#each rows as one (one.id)}
							<li
								class="rowline grid grid-cols-[1.6rem_1fr] items-center gap-x-3 gap-y-1 py-2 md:grid-cols-[1.6rem_12rem_minmax(0,1fr)_11rem_7rem]"
							>
								<StateMark state={MARKS[one.standing]} />
								<b class="font-semibold">{one.person}</b>
								<span class="col-start-2 md:col-start-auto"
									>{one.scope}<span class="text-soft block text-[0.92rem]">{one.evidence}</span
									></span
								>
								<span class="col-start-2 md:col-start-auto"
									>{one.standing === 'in force' && !one.lastDay
										? 'in force'
										: one.standing}{#if one.standing === 'to come'}, from {readable(one.fromDay)}
									{:else if one.lastDay}<span class="block whitespace-nowrap"
											>{one.standing === 'lapsed' || one.standing === 'taken back'
												? 'last day was'
												: 'until'}
											{readable(one.lastDay)}</span
										>{/if}</span
								>
								{#if data.mayKeep && (one.standing === 'in force' || one.standing === 'lapses soon' || one.standing === 'to come')}
									<details class="col-start-2 md:col-start-auto">
										<summary class="linkish min-h-11 cursor-pointer content-center"
											>Take back</summary
										>
										<form method="post" action="?/end" class="grid gap-2" use:enhance>
											<input type="hidden" name="id" value={one.id} />
											<label
												><span class="label">Why</span><input name="why" class="w-full" /></label
											>
											<button class="button">Take back</button>
										</form>
									</details>{/if}
							</li>
						{/each}
					</ul>
				</section>
			{/if}
		{/each}
	</div>
	{#if data.mayKeep}
		<form
			method="post"
			action="?/give"
			class="grid gap-4 rounded border-2 border-ink bg-sheet p-4"
			use:enhance={() =>
				async ({ result, update }) => {
					await update({ reset: result.type === 'success' });
					id = freshId();
				}}
		>
			<h2 class="text-[1.15rem]! text-ink!">Authorise somebody</h2>
			<input type="hidden" name="id" value={id} />
			<FormRefusal refusal={refusal && FIELDS.includes(refusal.path ?? '') ? null : refusal} />
			<Field id="userId" label="Who" refusal={at('userId')}>
				{#snippet children(field)}<select {...field} name="userId" class="w-full"
						><option value="">choose</option>{#each data.accounts as one (one.id)}<option
								value={one.id}
								selected={one.id === data.proposed?.userId}>{one.name}</option
							>{/each}</select
					>{/snippet}
			</Field>
			<Field id="job" label="Job" refusal={at('job')}>
				{#snippet children(field)}<select {...field} name="job" class="w-full"
						><option value="">choose</option>{#each data.jobs as job (job)}<option
								selected={job === data.proposed?.job}>{job}</option
							>{/each}</select
					>{/snippet}
			</Field>
			<details open={data.proposed !== null}>
				<summary class="min-h-11 cursor-pointer content-center font-semibold"
					>Only for some kinds or models</summary
				>
				<fieldset class="max-h-56 overflow-auto">
					<legend class="label">Kinds; none ticked: all</legend>
					{#each data.families as one (one.family)}<label class="flex min-h-11 items-center gap-3"
							><input
								type="checkbox"
								name="families[]"
								value={one.family}
								checked={one.family === data.proposed?.family}
								class="h-5 w-5"
							/>{one.plural}</label
						>{/each}
				</fieldset>
				<fieldset class="mt-2 max-h-56 overflow-auto">
					<legend class="label">Models; none ticked: all of these kinds</legend>
					{#each data.models as one (one.id)}<label class="flex min-h-11 items-center gap-3"
							><input
								type="checkbox"
								name="modelIds[]"
								value={one.id}
								class="h-5 w-5"
							/>{one.name}</label
						>{/each}
				</fieldset>
			</details>
			<DayField name="from" label="From" value={data.asOf} refusal={at('from')} />
			<DayField
				name="until"
				label="Last day"
				hint="Empty: until it is taken back."
				refusal={at('until')}
			/>
			<PlainField
				name="evidence"
				label="Evidence"
				value={data.proposed?.evidence ?? ''}
				placeholder="course, certificate, who saw the work"
				refusal={at('evidence')}
			/>
			<button class="button primary">Authorise</button>
		</form>
	{/if}
</div>
