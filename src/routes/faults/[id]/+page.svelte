<script lang="ts">
	import PaperLink from '$lib/ui/records/PaperLink.svelte';
	import { invalidateAll } from '$app/navigation';
	import { readable } from '$core/plan/calendar';
	import { enhance } from '$lib/ui/form/enhance';
	import { airwayOf } from '$core/data/families';
	import { RECALLED, rejectCode } from '$core/data/reject-codes';
	import { PARTS, repairOf } from '$core/data/repairs';
	import { closesItself } from '$core/people/two-people';
	import { freshId } from '$lib/fresh-id';
	import Airway from '$lib/ui/airway/Airway.svelte';
	import { withDefects } from '$lib/ui/airway/item-marks';
	import Notice from '$lib/ui/form/Notice.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import { outbox } from '$lib/ui/outbox/outbox.svelte';
	import Photos from '$lib/ui/photo/Photos.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { siteMoment } from '$lib/ui/time/moments';

	let { data, form } = $props();
	$effect(() =>
		outbox.listen(
			(parcel) => {
				if (parcel.about === data.defect.id) void invalidateAll();
			},
			() => {}
		)
	);
	const airway = $derived(airwayOf(data.item.family));
	const code = $derived(rejectCode(data.defect.code));
	const marks = $derived(withDefects({}, data.defect.closedAt ? [] : data.others));
	const job = $derived(data.job && !data.job.supersededAt ? data.job : null);
	const repair = $derived(job ? repairOf(job.repair) : null);
	const when = (date: Date | null) => (date ? siteMoment(date) : '');
	const passed = $derived(job?.run?.signedAt && job.run.outcome !== 'fail');
	const failed = $derived(job?.run?.signedAt && job.run.outcome === 'fail');
	/** A small job closes with its own check. */
	const closes = $derived(repair && job ? closesItself(repair, job.defects) : false);
	const cost = $derived(
		(job?.parts ?? []).reduce((sum, part) => sum + part.quantity * (part.costEach ?? 0), 0)
	);
	const startId = $derived(`${data.defect.id && freshId()}`);
	const runId = freshId();
	const stage = $derived(
		data.defect.closedAt
			? 5
			: !job || failed
				? 1
				: !job.doneAt
					? 2
					: !repair?.retires && !passed
						? 3
						: 4
	);
	const STAGES = $derived([
		{ n: 1, name: 'Choose the repair' },
		{ n: 2, name: 'Repair and prove' },
		...(closes || repair?.retires ? [] : [{ n: 3, name: 'Inspect again' }]),
		...(closes
			? []
			: [{ n: 4, name: repair?.retires ? 'Confirm by a supervisor' : 'Release by a supervisor' }])
	]);
</script>

<svelte:head><title>{data.item.tag}, {data.defect.code} · Grevan</title></svelte:head>
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<a
		class="tag rounded border-[1.5px] border-ink bg-sheet px-2 text-[1.45rem] no-underline"
		href="/items/{data.item.tag}">{data.item.tag}</a
	>
	<h1>{data.station.name}: {code.name}</h1>
	<p class="text-soft">{data.model} · size {data.item.size} · {data.place}</p>
	{#if !data.defect.closedAt}<a
			class="linkish ml-auto flex min-h-11 items-center"
			href="/faults/{data.defect.id}/card">Job card</a
		>{/if}
	<a
		class="linkish flex min-h-11 items-center"
		class:ml-auto={data.defect.closedAt !== null}
		href="/items/{data.item.tag}/history">History</a
	>
</div>
<div class="flex flex-col">
	<div class="mt-3 max-md:order-last">
		<Airway
			stations={airway.stations}
			{marks}
			label="Where the fault lies"
			current={data.defect.station}
		/>
	</div>

	<ol class="mt-4 flex flex-wrap gap-x-6 gap-y-1" aria-label="From fault to ready">
		{#each STAGES as s (s.n)}
			<li
				class="flex items-center gap-2 {s.n === stage ? 'font-bold' : 'text-soft'}"
				aria-current={s.n === stage ? 'step' : undefined}
			>
				<StateMark state={s.n < stage ? 'good' : s.n === stage ? 'due' : 'open'} />{s.name}
			</li>
		{/each}
	</ol>
	{#if form?.refusal}<div class="mt-4">
			<Notice kind="refusal"><p>{form.refusal.message}</p></Notice>
		</div>{/if}

	<div class="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_20rem]">
		<section aria-label="Next step">
			{#if data.defect.closedHow === 'withdrawn'}
				<Notice
					><p>
						{data.defect.closedWhy
							? `Taken back, ${when(data.defect.closedAt)}: ${data.defect.closedWhy}`
							: `Taken back before the inspection was signed, ${when(data.defect.closedAt)}.`}
					</p></Notice
				>
			{:else if data.defect.closedHow === 'not-confirmed'}
				<Notice kind="good"
					><p>
						<b>Not confirmed</b>, {when(data.defect.closedAt)}: {data.defect.closedWhy}
					</p></Notice
				>
			{:else if data.defect.closedAt && job}
				<Notice kind="good"
					><p>
						<b
							>{data.defect.closedHow === 'retired'
								? 'Taken out of use for good'
								: closes
									? 'Closed by its own check'
									: 'Released'}</b
						>
						by {job.names[job.releasedBy ?? '']}, {when(job.releasedAt)}, after {repair?.name.toLowerCase()}.
					</p></Notice
				>
				<p class="mt-4 flex flex-wrap items-center gap-4">
					<a class="button primary" href="/items/{data.item.tag}">To {data.item.tag}</a>
					<PaperLink kind="repair" id={job.id} />
				</p>
			{:else if stage === 1}
				{#if failed}<div class="mb-4">
						<Notice kind="caution"
							><p>
								The inspection after the last repair failed. Choose what mends it now; its faults
								come along.
							</p></Notice
						>
					</div>{/if}
				{#if data.mayRepair}
					<form method="post" action="?/start" use:enhance class="grid max-w-xl gap-4">
						<input type="hidden" name="id" value={startId} /><input
							type="hidden"
							name="itemId"
							value={data.item.id}
						/>
						<div>
							<label class="label" for="repair">Repair</label>
							<select id="repair" name="repair" value={data.usual} class="w-full">
								{#each data.repairs as r (r.key)}<option value={r.key}
										>{r.name}{r.key === data.usual ? ' (usual for this fault)' : ''}</option
									>{/each}
							</select>
						</div>
						<fieldset>
							<legend class="label">Faults that it mends</legend>
							{#each data.others as other (other.id)}
								<label class="flex min-h-11 items-center gap-3"
									><input
										type="checkbox"
										name="defects[]"
										value={other.id}
										checked={other.id === data.defect.id}
									/><span class="tag">{other.code}</span>
									{airway.stations.find((s) => s.key === other.station)?.name}: {rejectCode(
										other.code
									).name}</label
								>
							{/each}
						</fieldset>
						<button class="button primary justify-self-start">Start the repair</button>
					</form>
				{:else}<Notice><p>A technician starts the repair.</p></Notice>{/if}
				{#if data.mayDeny && !failed}
					<details class="mt-6 max-w-xl">
						<summary class="linkish min-h-11 content-center">It is not there</summary>
						<form
							method="post"
							action="?/deny"
							use:enhance
							class="mt-1 flex flex-wrap items-end gap-3"
						>
							<div class="min-w-[14rem] flex-1">
								<PlainField
									name="why"
									label="Looked for how, and found what"
									maxlength={300}
									required
								/>
							</div>
							<button class="button">Not confirmed</button>
						</form>
						{#if data.defect.severity === 'stop' || data.defect.severity === 'repair'}<p
								class="text-soft"
							>
								An inspection after the report comes first.
							</p>{/if}
					</details>
				{/if}
			{:else if stage === 2 && job && repair}
				<h2 class="text-[1.4rem]! text-ink!">{repair.name}</h2>
				<ol class="mt-2 list-decimal pl-5 text-[1.05rem]">
					{#each repair.steps as line (line)}<li class="py-0.5">{line}</li>{/each}
				</ol>
				{#if data.mayRepair}
					<form
						method="post"
						action="?/finish"
						use:enhance={() =>
							({ update }) =>
								update({ reset: false })}
						class="mt-4 grid max-w-xl gap-4"
					>
						<input type="hidden" name="jobId" value={job.id} /><input
							type="hidden"
							name="version"
							value={job.version}
						/><input type="hidden" name="proofLines" value={repair.proof.length} />
						{#each data.parts as part, i (part.part)}
							<div>
								<label class="label" for="lot-{i}">{part.name}, {part.quantity} needed</label>
								{#if part.lots.length === 0}<p class="font-semibold text-held">
										None in the store within its shelf life.
									</p>{/if}
								<select id="lot-{i}" name="lots[]" class="w-full">
									{#each part.lots as lot, nth (lot.id)}<option
											value="{lot.id}:{part.quantity}"
											selected={nth === 0}
											>lot {lot.lot}, {lot.quantity} left{lot.useBy
												? `, until ${readable(lot.useBy)}`
												: ''}</option
										>{/each}
									<option value="">none taken from the store</option>
								</select>
							</div>
						{/each}
						<fieldset>
							<legend class="label">The proving check: each must hold</legend>
							{#each repair.proof as line, i (line)}
								<label class="flex min-h-11 items-center gap-3"
									><input type="checkbox" name="proof[]" value={i} />{line}</label
								>
							{/each}
						</fieldset>
						<PlainField
							name="minutes"
							label="Minutes at the bench"
							inputmode="numeric"
							width="w-28"
							mono
						/>
						<div>
							<label class="label" for="note">Note</label><textarea
								id="note"
								name="note"
								maxlength="500"
								rows="2"
								class="w-full"
							></textarea>
						</div>
						<button class="button primary justify-self-start"
							>{closes ? 'Done: close the fault' : 'Repair done'}</button
						>
					</form>
				{/if}
			{:else if stage === 3 && job}
				<p class="text-[1.1rem]">
					{repair?.name} done by <b>{job.names[job.doneBy ?? '']}</b>, {when(job.doneAt)}. A
					repaired item is inspected along its whole airway before it can be released.
				</p>
				{#if data.mayRepair}
					<form method="post" action="?/inspect" class="mt-4">
						<input type="hidden" name="id" value={runId} /><input
							type="hidden"
							name="tag"
							value={data.item.tag}
						/>
						<button class="button primary"
							>{job.run ? 'Go on with the inspection' : 'Inspect it now'}</button
						>
					</form>
				{/if}
			{:else if stage === 4 && job}
				<p class="text-[1.1rem]">
					{repair?.name} done by <b>{job.names[job.doneBy ?? '']}</b>, {when(
						job.doneAt
					)}.{#if passed}
						The inspection after it: <b>{job.run?.outcome}</b>.{/if}
				</p>
				{#if data.mayRelease}
					<form method="post" action="?/release" use:enhance class="mt-4">
						<input type="hidden" name="jobId" value={job.id} /><input
							type="hidden"
							name="version"
							value={job.version}
						/>
						<button class="button primary"
							>{repair?.retires
								? `Take ${data.item.tag} out of use for good`
								: `Release ${data.item.tag}`}</button
						>
					</form>
				{:else}
					<div class="mt-4">
						<Notice kind="caution"
							><p>
								{data.forAnother
									? 'You repaired it: another supervisor releases it.'
									: `A supervisor releases it${data.byAnother ? ', someone else than the repairer' : ''}.`}
								It stays held until then.
							</p></Notice
						>
					</div>
				{/if}
			{/if}
		</section>
		<aside aria-label="The fault" class="border-rule lg:border-l lg:pl-5">
			<h2>Found</h2>
			<p class="mt-1">
				<span class="tag">{data.defect.code}</span> · {code.severity}{data.defect.severity ===
				'stop'
					? ', held at once'
					: ''}
			</p>
			<ol class="mt-1">
				{#each data.reports as { report, by } (report.id)}
					<li class="py-1 {report.withdrawnAt ? 'text-soft line-through' : ''}">
						{when(report.reportedAt)} by {by}{#if report.note}: “{report.note}”{/if}
						{#if report.runId}<a class="linkish ml-1" href="/runs/{report.runId}">inspection</a
							>{/if}
						{#if !report.withdrawnAt && !report.runId && data.defect.code !== RECALLED && report.reportedBy === data.me && stage === 1}
							<form
								method="post"
								action="?/back"
								use:enhance
								class="mt-1 flex flex-wrap items-end gap-2"
							>
								<input type="hidden" name="reportId" value={report.id} />
								<div class="min-w-[10rem] flex-1">
									<PlainField name="why" label="A mistake? Say why" maxlength={300} required />
								</div>
								<button class="button">Take it back</button>
							</form>
						{/if}
					</li>
				{/each}
			</ol>
			<Photos
				url="/api/faults/{data.defect.id}/photos"
				about={data.defect.id}
				tag={data.item.tag}
				title={code.name}
				photos={data.photos}
				active={!data.defect.closedAt}
			/>
			{#if job?.parts.length}
				<h2 class="mt-4">Parts used</h2>
				<ul>
					{#each job.parts as part (part.lot)}<li>
							{part.quantity} × {PARTS[part.part]?.name}, lot
							<span class="font-mono">{part.lot}</span>
						</li>{/each}
				</ul>
			{/if}
			{#if job?.minutes !== null && job?.minutes !== undefined}<p class="mt-2">
					{job.minutes} min at the bench{cost ? `, parts for ${cost.toFixed(2)}` : ''}
				</p>{/if}
			{#if job?.note}<h2 class="mt-4">Note of the repairer</h2>
				<p>{job.note}</p>{/if}
		</aside>
	</div>
</div>
